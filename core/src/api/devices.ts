/** What any scale says: grams on the platform and whether they have settled. */
export interface ScaleReading {
  massG: number;
  stable: boolean;
  simulated: boolean;
  /** Nothing is heard from it. */
  unplugged: boolean;
  at: number;
}

/** One thing that a label printer was given. */
export interface PrintJob {
  id: number;
  /** What stands on it, in a word: a code. */
  what: string;
  copies: number;
  /** Bytes of the PDF file that was sent. */
  bytes: number;
  at: number;
  state: 'printed' | 'waiting';
}

/** The label printer: what it was given, the newest first, and how it is. */
export interface PrinterView {
  simulated: boolean;
  empty: boolean;
  unplugged: boolean;
  jobs: readonly PrintJob[];
}
