/** How runs of one kind are followed. */
export interface Following<R> {
  /** Milliseconds between two looks, and between two times that what was read becomes durable. */
  everyMs: number;
  keepMs: number;
  /** UTC ms. */
  now: () => number;
  /** Those that are under way. */
  runs: () => Iterable<R>;
  idOf: (run: R) => string;
  /** One look at one run: its probe is asked, its plan goes on. */
  look: (run: R, now: number) => Promise<void>;
  /** Makes what was read of a run durable; nothing where it is already. */
  keep: (run: R) => Promise<void>;
  /** After all runs were looked at: forget those that are over. */
  after?: (isUnderWay: (id: string) => boolean) => void;
  /** Where failures in the background are told; nothing here may end the process. */
  log: (error: unknown) => void;
}

const NOT_KEPT =
  'The readings cannot be written to disk. They are kept here in memory and tried again; look whether the disk is full.';
const NOT_FOLLOWED = 'It cannot be followed at the moment; it is tried again.';

/**
 * Follows runs: looks at each in turn, one look at a time, and makes durable what was read. A failure is told, at the
 * run concerned, and tried again; nobody loses what was read, no other run waits.
 */
export class Follower<R> {
  private readonly listeners = new Set<() => void>();
  private readonly troubles = new Map<string, string>();
  private keptAt = 0;
  private busy = false;
  private keeping: Promise<void> | null = null;

  constructor(private readonly of: Following<R>) {}

  /** What goes wrong with a run behind the scenes, in words; null while all is well. */
  trouble(id: string): string | null {
    return this.troubles.get(id) ?? null;
  }

  /** Tells somebody of every look. @returns stop */
  onLook(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** One look at every run. */
  async look(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    try {
      const now = this.of.now();
      const under = new Set<string>();
      for (const run of [...this.of.runs()]) {
        const id = this.of.idOf(run);
        under.add(id);
        await this.tried(id, NOT_FOLLOWED, () => this.of.look(run, now));
      }
      for (const id of this.troubles.keys()) if (!under.has(id)) this.troubles.delete(id);
      this.of.after?.((id) => under.has(id));
      if (now - this.keptAt >= this.of.keepMs) {
        this.keptAt = now;
        // The screen says so meanwhile.
        await this.keep().catch(() => undefined);
      }
      for (const listener of this.listeners) listener();
    } finally {
      this.busy = false;
    }
  }

  /** Makes what was read durable. Who asks while it is being written waits for the next writing. @throws the first failure, after everything was tried */
  async keep(): Promise<void> {
    while (this.keeping) await this.keeping.catch(() => undefined);
    this.keeping = this.keepAll().finally(() => (this.keeping = null));
    await this.keeping;
  }

  private async keepAll(): Promise<void> {
    const failures: unknown[] = [];
    for (const run of [...this.of.runs()]) {
      const failure = await this.tried(this.of.idOf(run), NOT_KEPT, () => this.of.keep(run));
      if (failure) failures.push(failure.error);
    }
    if (failures.length > 0) throw failures[0];
  }

  private async tried(id: string, trouble: string, what: () => Promise<void>): Promise<{ error: unknown } | null> {
    try {
      await what();
      if (this.troubles.get(id) === trouble) this.troubles.delete(id);
      return null;
    } catch (error) {
      this.troubles.set(id, trouble);
      this.of.log(error);
      return { error };
    }
  }

  /** Follows until stopped. @param everyMs another pace than the usual @returns stop, which keeps what was read */
  watch(everyMs = this.of.everyMs): () => Promise<void> {
    const timer = setInterval(() => void this.look().catch(this.of.log), everyMs);
    return async () => {
      clearInterval(timer);
      while (this.busy) await new Promise((resolve) => setTimeout(resolve, 10));
      await this.keep().catch(this.of.log);
    };
  }
}
