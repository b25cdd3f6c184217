import type { Book } from './book';
import type { Step } from './types';

/**
 * Goes through the order of the work once, and on as the book grows; a correction or a late entry makes it begin again.
 *
 * @example
 * const follower = new Follower(() => book, () => (sum = 0), (step) => (sum += step.minutes));
 * follower.catchUp(); // true: all of the book is in the sum
 */
export class Follower {
  private line = '';
  private stand: unknown;
  private seen = 0;

  /**
   * @param begin lets go of what was taken in
   * @param take is given each step in force, and its place in the order of the work
   * @param standsOn something else that it reads: where that is another, it begins again too
   */
  constructor(
    private readonly book: () => Book,
    private readonly begin: () => void,
    private readonly take: (step: Step, book: Book, place: number) => void,
    private readonly standsOn: () => unknown = () => undefined,
  ) {}

  /**
   * Takes in what was entered since.
   *
   * @param most steps, after which it stops
   * @returns whether that is all
   */
  catchUp(most = Infinity): boolean {
    const book = this.book();
    const { line, timeline } = book;
    const stand = this.standsOn();
    if (this.line !== line || this.stand !== stand) {
      this.begin();
      [this.line, this.stand, this.seen] = [line, stand, 0];
    }
    const end = Math.min(timeline.length, this.seen + most);
    for (; this.seen < end; this.seen += 1) this.take(timeline.at(this.seen) as Step, book, this.seen);
    return end === timeline.length;
  }
}
