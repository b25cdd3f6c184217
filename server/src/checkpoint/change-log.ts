import { createHash } from 'node:crypto';
import { closeSync, existsSync, openSync, readFileSync, rmSync, truncateSync, writeSync } from 'node:fs';
import type { CurveMeta } from '@wunsch/core/workshop/kept';
import { noChanges, type Changes } from '../store/records';

/** What one commit changed in memory: without readings of curves, bytes of files and answers that were given. */
export type Noted = Omit<Changes, 'curves' | 'answers'> & { curves: CurveMeta[] };

interface Line {
  /** Which commit; none for what is no part of one. */
  number?: number;
  changes: Partial<Noted>;
}

const seal = (text: string): string => createHash('md5').update(text).digest('hex');

/** Only what is there: most lists of most commits are empty. */
function brief({ answers: _, curves, ...changes }: Changes): Partial<Noted> {
  const metas = curves.map(({ curve: _readings, ...meta }) => meta);
  return Object.fromEntries(
    Object.entries({ ...changes, curves: metas }).filter(([, value]) => !Array.isArray(value) || value.length > 0),
  );
}

/**
 * What was committed since a checkpoint, a line each, beside the database. A line is written before its commit: what
 * stands behind the last commit of the database was none.
 */
export class ChangeLog {
  private file: number | null = null;
  bytes = 0;
  /** Commits in it. */
  lines = 0;

  constructor(private readonly path: string) {}

  note(number: number, changes: Changes): void {
    this.append({ number, changes: brief(changes) });
    this.lines += 1;
  }

  /** A curve that grew: no part of any commit. */
  noteCurve(meta: CurveMeta): void {
    this.append({ changes: { curves: [meta] } });
  }

  private append(line: Line): void {
    this.file ??= openSync(this.path, 'a', 0o600);
    const text = JSON.stringify(line);
    const whole = `${seal(text)} ${text}\n`;
    this.bytes += Buffer.byteLength(whole);
    writeSync(this.file, whole);
  }

  /** Begins anew. */
  clear(): void {
    this.close();
    rmSync(this.path, { force: true });
    [this.bytes, this.lines] = [0, 0];
  }

  close(): void {
    if (this.file !== null) closeSync(this.file);
    this.file = null;
  }

  /**
   * What was changed after one commit and up to another, in order. What is behind that is cut off.
   *
   * @returns null where a commit between them is not there
   */
  read(after: number, upTo: number): Noted[] | null {
    const file = existsSync(this.path) ? readFileSync(this.path) : Buffer.alloc(0);
    const rows: Noted[] = [];
    let next = after + 1;
    let from = 0;
    for (;;) {
      const end = file.indexOf('\n', from);
      const line = end < 0 ? null : lineOf(file.toString('utf8', from, end));
      if (!line || (line.number ?? 0) > upTo) break;
      from = end + 1;
      // A checkpoint may have been written and the log not begun anew.
      if (line.number !== undefined && line.number <= after) continue;
      if (line.number !== undefined && line.number !== next) return null;
      if (line.number !== undefined) next += 1;
      rows.push(noted(line));
    }
    if (from < file.length) truncateSync(this.path, from);
    this.bytes = from;
    this.lines = next - 1 - after;
    return next === upTo + 1 ? rows : null;
  }
}

const noted = ({ changes }: Line): Noted => {
  const { answers: _, ...none } = noChanges();
  return { ...none, ...changes, curves: changes.curves ?? [] };
};

/** A line of the log; null where it was cut off. */
function lineOf(whole: string): Line | null {
  const text = whole.slice(33);
  if (text === '' || seal(text) !== whole.slice(0, 32)) return null;
  return JSON.parse(text) as Line;
}
