/** As much of an error as somebody reads; a database repeats everything that it was given. */
const MOST_LETTERS = 2000;

/** Text cut to what somebody reads, with how much was left out. */
export const brief = (text: string): string =>
  text.length <= MOST_LETTERS
    ? text
    : `${text.slice(0, MOST_LETTERS)} … (${(text.length - MOST_LETTERS).toLocaleString('en-GB')} letters left out)`;

/** An error for the log, cut. */
export const briefError = (error: Error): { type: string; message: string; stack: string } => ({
  type: error.name,
  message: brief(error.message),
  stack: brief(error.stack ?? ''),
});
