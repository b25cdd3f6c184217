import { DomainError } from '../errors/domain-error';
import type { ActKind, Batch, PlannedAct } from '../ledger/types';
import { duesOf, type Cause, type Due, type RunState } from '../run/acts';
import { FINENESS, type Waits } from '../work/grinding';
import type { Solid } from './fineness';

/** As many as anybody plans for one bowl. */
const MOST = 100;

/** The trade's acts at a bowl: their words, and what they put in that has to be ground. */
export const ACTS: Readonly<Record<ActKind, { words: string; solid: Solid | null }>> = {
  warm: { words: 'Warm the bowl and stones', solid: null },
  butter: { words: 'First butter in', solid: null },
  nibs: { words: 'Nibs in', solid: 'cocoa' },
  'lid-off': { words: 'Lid off', solid: null },
  'lid-on': { words: 'Lid on', solid: null },
  sugar: { words: 'Sugar in', solid: 'sugar' },
  milk: { words: 'Milk or oat powder in', solid: 'milk' },
  lecithin: { words: 'Lecithin in', solid: null },
  'stones-up': { words: 'Stones up', solid: null },
  'stones-down': { words: 'Stones down', solid: null },
  read: { words: 'Look again', solid: null },
  other: { words: '', solid: null },
};

/** Plans an act for a batch; acts stand in the order in which they are due. @throws DomainError `grind/too-many-acts` */
export function planAct(batch: Batch, act: Omit<PlannedAct, 'doneAt'>): Batch {
  const acts = [...(batch.acts ?? []), { ...act, doneAt: null }].sort((a, b) => a.at - b.at);
  if (acts.length > MOST) throw new DomainError('grind/too-many-acts', `That is more than ${MOST} acts for one batch.`);
  if (act.waits?.by === 'act' && !acts.some(({ id }) => id === (act.waits as { actId: string }).actId))
    throw new DomainError('http/not-found', 'The act that it waits for is not planned any more.', [
      { path: 'waits', message: 'waits for an act that is not planned' },
    ]);
  return { ...batch, acts };
}

/** What of a recipe goes in as which act. */
const BY_ROLE: Readonly<Partial<Record<string, ActKind>>> = {
  nibs: 'nibs',
  liquor: 'nibs',
  butter: 'butter',
  sugar: 'sugar',
  milk: 'milk',
  other: 'milk',
  powder: 'milk',
  lecithin: 'lecithin',
};

/**
 * What is to be fed when, as acts: one a portion.
 *
 * @param startedAt when the stones began, UTC ms; @param scale of this bowl against the plan; @param mass how mg are shown
 */
export const actsOfFeed = (
  portions: readonly { name: string; grams: number; atMinutes: number; part: string; role: string }[],
  startedAt: number,
  scale: number,
  mass: (mg: number) => string,
): { what: string; at: number; kind: ActKind }[] =>
  portions.map(({ name, grams, atMinutes, part, role }) => ({
    what: `${name} ${mass(Math.round(grams * scale) * 1000)}${part === '' ? '' : `, ${part}`}`.slice(0, 80),
    at: startedAt + atMinutes * 60_000,
    kind: BY_ROLE[role] ?? 'other',
  }));

/**
 * The acts that most bowls see, each waiting for what it needs: the lid while volatiles leave, the lecithin once it is
 * nearly fine, the stones up at the target.
 */
export function usualActs(targetMicron: number): { kind: ActKind; what: string; waits: Waits }[] {
  const act = (kind: ActKind, own: Waits) => ({ kind, what: ACTS[kind].words, waits: own });
  return [
    act('lid-off', { by: 'running', hours: 0 }),
    act('lid-on', { by: 'running', hours: 8 }),
    act('lecithin', { by: 'reading', micron: targetMicron + 6 }),
    act('stones-up', { by: 'reading', micron: targetMicron }),
  ];
}

/** What is said of a planned act: it was done (or not after all), it is due at another time, it is dropped. */
export interface ActChange {
  done?: boolean | undefined;
  /** Due at that time by the clock, whatever it waited for before. */
  at?: number | undefined;
  dropped?: boolean | undefined;
}

/**
 * Changes a planned act.
 *
 * @param now when it is said, UTC ms
 * @throws DomainError `http/not-found` when it is not planned any more
 */
export function changeAct(batch: Batch, actId: string, { done, at, dropped }: ActChange, now: number): Batch {
  const acts = batch.acts ?? [];
  if (!acts.some(({ id }) => id === actId))
    throw new DomainError('http/not-found', 'That act is not planned any more, perhaps at another screen.');
  const changed = ({ waits: own, ...act }: PlannedAct): PlannedAct => ({
    ...act,
    ...(own === undefined || at !== undefined ? {} : { waits: own }),
    at: at ?? act.at,
    // Pressed at two screens it was done when it was pressed first.
    doneAt: done === undefined ? act.doneAt : done ? (act.doneAt ?? now) : null,
  });
  return {
    ...batch,
    acts: acts
      .filter(({ id }) => !(dropped === true && id === actId))
      .map((act) => (act.id === actId ? changed(act) : act))
      .sort((a, b) => a.at - b.at),
  };
}

/** Something that went into a bowl by the book: when, and what of it has to be ground. */
export interface Charged {
  at: number;
  solids: readonly Solid[];
}

/** Around the time that it was planned for, a charge is the planned one. */
const NEAR_MS = 24 * 3_600_000;
/** Nobody said that it was done, and by now it surely is. */
const SURELY_MS = 3 * 3_600_000;

/** Solids by the moment they went in, UTC ms, and those that are still to come. */
export interface WentIn {
  solids: { solid: Solid; at: number }[];
  planned: { actId: string; what: string; solid: Solid; at: number }[];
  /** Acts that a charge did, so that who weighed it in need not press as well; by id, when. */
  done: Map<string, number>;
  /** Acts long due that nobody called done: counted as done when they were due. */
  assumed: string[];
}

/**
 * What went into a bowl when, from the book and from what was planned.
 *
 * A bowl weighed in one go has everything in the book at once: then its acts say when each solid really went in. What is
 * charged later does the next open act of its kind.
 *
 * @param dues when each open act is due; @param now UTC ms
 */
export function wentIn(
  acts: readonly PlannedAct[],
  charges: readonly Charged[],
  dues: ReadonlyMap<string, Due>,
  now: number,
): WentIn {
  const found: WentIn = { solids: [], planned: [], done: new Map(), assumed: [] };
  const [first, ...later] = charges;
  const open = later.flatMap(({ at, solids }) => solids.map((solid) => ({ at, solid })));
  found.solids.push(...open);
  const described = new Set<Solid>();
  for (const act of acts) {
    const solid = act.kind === undefined ? null : ACTS[act.kind].solid;
    if (solid === null) continue;
    const weighedBefore = first?.solids.includes(solid) === true && !open.some((row) => row.solid === solid);
    const dueAt = act.doneAt ?? dues.get(act.id)?.at ?? null;
    if (weighedBefore && dueAt !== null) described.add(solid);
    if (act.doneAt !== null) {
      if (weighedBefore) found.solids.push({ solid, at: act.doneAt });
      continue;
    }
    const charge = open.find(
      (row) => row.solid === solid && row.at > (act.plannedAt ?? -Infinity) && Math.abs(row.at - act.at) <= NEAR_MS,
    );
    if (charge) {
      found.done.set(act.id, charge.at);
      open.splice(open.indexOf(charge), 1);
    } else if (dueAt !== null && dueAt < now - SURELY_MS && weighedBefore) {
      found.assumed.push(act.what);
      found.solids.push({ solid, at: dueAt });
    } else if (dueAt !== null) found.planned.push({ actId: act.id, what: act.what, solid, at: Math.max(dueAt, now) });
  }
  for (const solid of first?.solids ?? [])
    if (first && !described.has(solid)) found.solids.push({ solid, at: first.at });
  found.solids.sort((a, b) => a.at - b.at);
  return found;
}

/** What makes an act of a bowl due. */
function causeOf({ at, waits }: PlannedAct): Cause {
  if (!waits) return { by: 'clock', at };
  switch (waits.by) {
    case 'running':
      return waits;
    case 'reading':
      return { by: 'reading', channel: FINENESS, way: 'down', line: waits.micron };
    case 'act':
      return { by: 'act', actId: waits.actId, then: waits.minutes * 60_000 };
  }
}

/** When each act of a batch is due, UTC ms. */
export const actDues = (acts: readonly PlannedAct[], state: RunState): Map<string, Due> =>
  duesOf(
    acts.map((act) => ({ id: act.id, causes: [causeOf(act)], doneAt: act.doneAt })),
    state,
  );

/** What an act waits for, in words; null for the clock. */
export function waitsWords(act: PlannedAct, acts: readonly PlannedAct[]): string | null {
  const { waits: own } = act;
  if (!own) return null;
  if (own.by === 'running') return `at ${own.hours} running ${own.hours === 1 ? 'hour' : 'hours'}`;
  if (own.by === 'reading') return `once a reading is ${own.micron} µm or finer`;
  const other = acts.find(({ id }) => id === own.actId)?.what ?? 'an act that was dropped';
  return own.minutes === 0 ? `after “${other}”` : `${own.minutes} min after “${other}”`;
}
