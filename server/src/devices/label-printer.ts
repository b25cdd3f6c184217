import type { PrintJob } from '@wunsch/core/api/devices';

const MOST_JOBS = 50;

/** A label printer that ships with it: takes PDF files of one label a page, can run out of labels, can be unplugged. */
export class SimulatedLabelPrinter {
  mood = { empty: false, unplugged: false };
  private readonly list: PrintJob[] = [];
  private count = 0;

  constructor(private readonly now: () => number) {}

  /** Takes a job; one that is out of labels keeps it until there are some. */
  take(what: string, copies: number, bytes: number): PrintJob {
    const job: PrintJob = {
      id: (this.count += 1),
      what,
      copies,
      bytes,
      at: this.now(),
      state: this.mood.empty ? 'waiting' : 'printed',
    };
    this.list.unshift(job);
    this.list.length = Math.min(this.list.length, MOST_JOBS);
    return job;
  }

  /** Its jobs, the newest first; with labels in it again those that waited are printed. */
  jobs(): readonly PrintJob[] {
    if (!this.mood.empty) for (const job of this.list) job.state = 'printed';
    return this.list;
  }
}
