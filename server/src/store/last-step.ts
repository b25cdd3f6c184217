import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const NAME = 'last-step';

/**
 * The number of the last step that was saved, beside the database: one that ends before it has lost something, however
 * whole it looks.
 */
export class LastStep {
  /** What it said at the start; null where it said nothing. */
  readonly atStart: number | null;

  /** @param directory null where everything is in memory */
  constructor(private readonly directory: string | null) {
    this.atStart = this.read();
  }

  private read(): number | null {
    if (this.directory === null) return null;
    try {
      const value = Number(readFileSync(join(this.directory, NAME), 'utf8'));
      return Number.isSafeInteger(value) ? value : null;
    } catch {
      return null;
    }
  }

  /** Notes the last step there is now. It may lag behind (after a kill, on a full disk), never run ahead. */
  keep(seq: number): void {
    if (this.directory === null) return;
    try {
      writeFileSync(join(this.directory, NAME), String(seq), { mode: 0o600 });
    } catch {
      // What was saved is saved; this only finds out later what was lost.
    }
  }
}
