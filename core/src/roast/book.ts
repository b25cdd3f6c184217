import { DomainError } from '../errors/domain-error';
import type { Program, RoastRecord } from './records';
import type { CurveMeta } from '../workshop/kept';

interface Version {
  version: number;
  program: Program;
  record: RoastRecord;
}

type Of<K extends RoastRecord['value']['kind']> = RoastRecord & { value: Extract<RoastRecord['value'], { kind: K }> };

/** Programs, trials, scores and words, and the list of curves; in memory, the readings stay in the database. */
export class RoastBook {
  private readonly records: RoastRecord[] = [];
  private readonly versions = new Map<string, Version[]>();
  private readonly shelved = new Set<string>();
  private readonly trials = new Map<string, Of<'trial'>>();
  private readonly trialLoads = new Map<string, Of<'trial-load'>[]>();
  private readonly scores = new Map<string, Of<'score'>[]>();
  private readonly words = new Map<string, Of<'word'>[]>();
  readonly curves = new Map<string, CurveMeta>();
  private readonly byLoad = new Map<string, string>();
  /** Lists of channels, by what they say: nearly all curves have one of a few. */
  private readonly channels = new Map<string, CurveMeta['channels']>();
  /** Goes up with every curve that comes or goes. */
  curveRevision = 0;

  /** Lets go of all records; curves stay. */
  clear(): void {
    this.records.length = 0;
    for (const map of [this.versions, this.trials, this.trialLoads, this.scores, this.words]) map.clear();
    this.shelved.clear();
  }

  clearCurves(): void {
    this.curveRevision += 1;
    this.curves.clear();
    this.byLoad.clear();
  }

  add(record: RoastRecord): void {
    this.records.push(record);
    const { value } = record;
    if (value.kind === 'program')
      push(this.versions, value.programId, { version: value.version, program: value.program, record });
    else if (value.kind === 'shelved') {
      if (value.shelved) this.shelved.add(value.programId);
      else this.shelved.delete(value.programId);
    } else if (value.kind === 'trial') this.trials.set(value.trialId, { ...record, value });
    else if (value.kind === 'trial-load') push(this.trialLoads, value.trialId, { ...record, value });
    else if (value.kind === 'score') push(this.scores, value.loadId, { ...record, value });
    else push(this.words, value.loadId, { ...record, value });
  }

  everything(): readonly RoastRecord[] {
    return this.records;
  }

  programs(): { id: string; versions: readonly Version[]; shelved: boolean }[] {
    return [...this.versions].map(([id, versions]) => ({ id, versions, shelved: this.shelved.has(id) }));
  }

  /** Versions of a program, oldest first. @throws DomainError when there is none of that id */
  program(id: string): { id: string; versions: readonly Version[]; shelved: boolean } {
    const versions = this.versions.get(id);
    if (!versions) throw new DomainError('http/not-found', 'There is no such program.');
    return { id, versions, shelved: this.shelved.has(id) };
  }

  hasProgram(id: string): boolean {
    return this.versions.has(id);
  }

  allTrials(): Of<'trial'>[] {
    return [...this.trials.values()];
  }

  trial(id: string): Of<'trial'> {
    const found = this.trials.get(id);
    if (!found) throw new DomainError('http/not-found', 'There is no such trial.');
    return found;
  }

  loadsOf(trialId: string): readonly Of<'trial-load'>[] {
    return this.trialLoads.get(trialId) ?? [];
  }

  scoresOf(loadId: string): readonly Of<'score'>[] {
    return this.scores.get(loadId) ?? [];
  }

  wordsOf(loadId: string): readonly Of<'word'>[] {
    return this.words.get(loadId) ?? [];
  }

  addCurve(meta: CurveMeta): void {
    if (this.curves.get(meta.id)?.loadId !== meta.loadId) this.curveRevision += 1;
    this.curves.set(meta.id, { ...meta, channels: this.shared(meta.channels) });
    if (meta.loadId !== null) this.byLoad.set(meta.loadId, meta.id);
  }

  private shared(channels: CurveMeta['channels']): CurveMeta['channels'] {
    const key = JSON.stringify(channels);
    const known = this.channels.get(key);
    if (!known) this.channels.set(key, channels);
    return known ?? channels;
  }

  removeCurve(id: string): void {
    this.curveRevision += 1;
    const loadId = this.curves.get(id)?.loadId ?? null;
    if (loadId !== null && this.byLoad.get(loadId) === id) this.byLoad.delete(loadId);
    this.curves.delete(id);
  }

  curveOf(loadId: string): CurveMeta | null {
    const id = this.byLoad.get(loadId);
    return id === undefined ? null : (this.curves.get(id) ?? null);
  }
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
