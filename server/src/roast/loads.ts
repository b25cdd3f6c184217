import type { LoadRow, LoadView, LoggedLoadData } from '@wunsch/core/api/roast';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import type { Step } from '@wunsch/core/ledger/types';
import { curveData, type Curve, roastCurve } from '@wunsch/core/roast/curve';
import { USUAL_MOISTURE } from '@wunsch/core/roast/fit';
import { thin } from '@wunsch/core/roast/thin';
import { individuals } from '@wunsch/core/stats/individuals';
import { sampleShare } from '@wunsch/core/winnow/samples';
import type { Views } from '../ledger/views';

const PAST = 40;
/** Readings of a curve that a page is sent; more would show nothing more. */
const SENT = 4000;
/** Readings of a load that a fit is sent. */
const FIT_READINGS = 200;

type Roast = CommandOf<'roast'>;

/** Every so manieth reading, for arithmetic: a choice by shape would bias a fit. */
function evenly(curve: Curve, most: number): Curve {
  const every = Math.ceil(curve.seconds.length / most);
  if (every <= 1) return curve;
  const some = (values: Float64Array): Float64Array => values.filter((_, i) => i % every === 0);
  return { seconds: some(curve.seconds), beanC: some(curve.beanC), airC: some(curve.airC) };
}

/** The roast step that made a tub, in its newest version. @throws DomainError when no roast made it */
export function roastStep(views: Views, code: string): { step: Step; command: Roast; loadId: string } {
  const { book } = views.workshop;
  const holding = book.byCode(code);
  let step = holding ? book.steps.get(holding.madeBy) : undefined;
  for (let next = step && book.successorOf(step.id); step && next !== undefined; next = book.successorOf(step.id))
    step = book.steps.get(next) ?? step;
  if (!holding || step?.kind !== 'roast' || step.withdrawn)
    throw new DomainError('roast/no-load', `${code} is not a roast load here.`);
  return { step, command: step.command as Roast, loadId: holding.id };
}

const inG = (step: Step): number =>
  -step.postings.reduce((sum, p) => (p.holdingId !== null && p.massMg < 0 ? sum + p.massMg : sum), 0) / 1000;

const isNib = (views: Views, command: Roast): boolean =>
  command.sources.some(({ holdingId }) => views.workshop.book.holdings.get(holdingId)?.kind === 'nibs');

function programName(command: Roast): string | null {
  const { plan, version } = command.how ?? {};
  return plan ? `${plan.name}${version ? `, version ${version}` : ''}` : null;
}

/** Readings of the panel on a load: its own, and those of the bars that were made of it. */
function scoresOf(views: Views, loadId: string): LoadView['scores'] {
  const own = views.workshop.roasts.scoresOf(loadId).map(({ value, personId, at }) => ({
    score: value.score,
    note: value.note,
    person: views.person(personId),
    at,
    from: 'the load itself',
  }));
  const batch = batchOf(views, loadId);
  if (batch === null) return own;
  const { code } = views.workshop.book.holding(batch);
  const bars = views
    .stepsOfBatch(batch)
    .filter(({ kind }) => kind === 'taste')
    .map((step) => {
      const { score, note } = step.command as CommandOf<'taste'>;
      return { score, note, person: views.person(step.personId), at: step.at, from: `bars of ${code}` };
    });
  return [...own, ...bars];
}

/** Steps in force that took from a holding. */
function takenBy(views: Views, holdingId: string): Step[] {
  const { book } = views.workshop;
  return book
    .entriesOf(holdingId)
    .map(({ stepId }) => book.steps.get(stepId))
    .filter(
      (step): step is Step =>
        step !== undefined && step.postings.some((p) => p.holdingId === holdingId && p.massMg < 0),
    );
}

const winnowOf = (views: Views, loadId: string): Step | undefined =>
  takenBy(views, loadId).find(({ kind }) => kind === 'winnow');

/** The bowl that a load went into, by way of a winnowing or straight; null while it has not. */
function batchOf(views: Views, loadId: string): string | null {
  const nibs = winnowOf(views, loadId)?.slots['good'] ?? loadId;
  return takenBy(views, nibs).find(({ kind }) => kind === 'charge')?.batchId ?? null;
}

/** Loads that share a bowl, as long as there is none a winnowing; before that, those that stand beside it. */
function fillOf(views: Views, loadId: string): { codes: string[]; of: string | null } {
  const { book } = views.workshop;
  const batch = batchOf(views, loadId);
  const sourcesOf = (step: Step): string[] =>
    step.postings.flatMap((p) => (p.holdingId !== null && p.massMg < 0 ? [p.holdingId] : []));
  const winnow = winnowOf(views, loadId);
  const mixed =
    batch === null
      ? winnow
        ? sourcesOf(winnow)
        : standingWith(views, loadId)
      : views
          .stepsOfBatch(batch)
          .filter(({ kind }) => kind === 'charge')
          .flatMap(sourcesOf)
          .flatMap((id) => {
            const made = book.steps.get(book.holding(id).madeBy);
            return made?.kind === 'winnow' ? sourcesOf(made) : [id];
          });
  const codes = [...new Set(mixed)]
    .map((id) => book.holding(id))
    .filter(({ madeBy }) => book.steps.get(madeBy)?.kind === 'roast')
    .map(({ code }) => code)
    .sort();
  const made = winnow?.slots['good'];
  return { codes, of: batch !== null ? book.holding(batch).code : made === undefined ? null : book.holding(made).code };
}

/** Roasted tubs of the same family that are still there: what could go into one fill with a load that is. */
function standingWith(views: Views, loadId: string): string[] {
  const { book } = views.workshop;
  if (!book.live.has(loadId)) return [];
  const { kind } = book.holding(loadId);
  const family = views.family(loadId);
  return [...book.live].filter(
    (id) =>
      book.holding(id).kind === kind &&
      book.steps.get(book.holding(id).madeBy)?.kind === 'roast' &&
      views.family(id) === family,
  );
}

function row(views: Views, step: Step, loadId: string): LoadRow {
  const { book, machines, roasts } = views.workshop;
  const command = step.command as Roast;
  const holding = book.holding(loadId);
  const scores = scoresOf(views, loadId).map(({ score }) => score);
  const planned = command.program.reduce((sum, { minutes }) => sum + minutes, 0);
  const curve = roasts.curveOf(loadId);
  // A curve from a file ends when the load came out.
  const logged = curve?.source === 'file' ? (step.at - curve.startedAt) / 1000 : null;
  const seconds = command.how?.seconds ?? logged;
  return {
    code: holding.code,
    loadId,
    stepId: step.id,
    at: step.at,
    name: holding.name,
    family: views.family(loadId),
    roaster: step.machineId === null ? null : (machines.get(step.machineId)?.name ?? null),
    program: programName(command),
    programId: command.how?.programId ?? null,
    inG: inG(step),
    weightLeft: command.outG / inG(step) || 0,
    minutes: seconds !== null ? seconds / 60 : planned > 0 ? planned : null,
    endC: command.endBeanC,
    curve: curve !== null,
    score: scores.length === 0 ? null : scores.reduce((sum, s) => sum + s, 0) / scores.length,
  };
}

interface LoadQuery {
  limit: number;
  family?: string | undefined;
  /** Code of a lot that they have to be from. */
  lot?: string | undefined;
  /** Only loads from before, UTC ms. */
  before?: number | undefined;
}

/** Roast loads, newest first. */
export function loadRows(views: Views, { limit, family, lot, before = Infinity }: LoadQuery): LoadRow[] {
  const all = family === undefined ? views.yields.of('roast') : views.yields.ofFamily('roast', family);
  const rows: LoadRow[] = [];
  for (let i = all.length - 1; i >= 0 && rows.length < limit; i -= 1) {
    if ((all[i]?.at ?? 0) >= before) continue;
    const step = views.workshop.book.steps.get(all[i]?.stepId ?? '');
    const loadId = step?.slots['good'];
    if (!step || loadId === undefined) continue;
    if (lot !== undefined && !views.lotsIn(loadId).some(({ code }) => code === lot)) continue;
    rows.push(row(views, step, loadId));
  }
  return rows;
}

/** One load as a row; null where its roast was taken back. */
export function loadRow(views: Views, loadId: string): LoadRow | null {
  const { code } = views.workshop.book.holding(loadId);
  try {
    return row(views, roastStep(views, code).step, loadId);
  } catch {
    return null;
  }
}

/** Weight left by the newest earlier loads like one: same beans, same roaster, same program (or none); oldest first. */
function pastOf(views: Views, step: Step, loadId: string): number[] {
  const programOf = ({ command }: Step): string | null => (command as Roast).how?.programId ?? null;
  const all = views.yields.ofFamily('roast', views.family(loadId));
  const past: number[] = [];
  // A roast of its own plan, as those of a trial, is like no other.
  if (programOf(step) === null && (step.command as Roast).how?.plan) return past;
  for (let i = all.length - 1; i >= 0 && past.length < PAST; i -= 1) {
    const row = all[i];
    const other = row && row.at < step.at ? row.step : undefined;
    if (row && other && other.machineId === step.machineId && programOf(other) === programOf(step))
      past.unshift(row.value);
  }
  return past;
}

/** One load with everything that its judgement rests on. */
export async function loadView(views: Views, code: string): Promise<LoadView> {
  const { workshop } = views;
  const { step, command, loadId } = roastStep(views, code);
  const meta = workshop.roasts.curveOf(loadId);
  const logged = meta ? await workshop.readCurve(meta.id) : null;
  const curve = logged ? roastCurve(logged) : null;
  const fill = fillOf(views, loadId);
  const winnow = winnowOf(views, loadId);
  const how = command.how ?? null;
  return {
    ...row(views, step, loadId),
    person: views.person(step.personId),
    machineId: step.machineId,
    kind: isNib(views, command) ? 'nib' : 'bean',
    how,
    curveData: curve ? curveData(thin(curve, SENT)) : null,
    source: meta?.source ?? null,
    preheatC: how?.plan?.preheatC ?? how?.settings[0]?.setC ?? command.program[0]?.setC ?? null,
    moisture: moistureOf(views, command.how, loadId),
    startC: how?.beanStartC ?? null,
    past: individuals(pastOf(views, step, loadId)),
    kill: (step.machineId === null ? undefined : workshop.machines.get(step.machineId))?.roaster?.kill ?? null,
    fill: fill.codes,
    fillOf: fill.of,
    winnow: winnow ? winnowResult(views, winnow) : null,
    scores: scoresOf(views, loadId),
    words: workshop.roasts
      .wordsOf(loadId)
      .map(({ value, personId, at }) => ({ word: value.word, person: views.person(personId), at })),
    coolAt: how?.plan ? step.at + how.plan.coolMin * 60_000 : null,
  };
}

function winnowResult(views: Views, step: Step): LoadView['winnow'] {
  const command = step.command as CommandOf<'winnow'>;
  const made = step.slots['good'];
  const grams = inG(step);
  if (made === undefined || grams <= 0) return null;
  return {
    stepId: step.id,
    code: views.workshop.book.holding(made).code,
    nibYield: command.nibsG / grams,
    shell: sampleShare(command.shellSamples ?? [])?.mean ?? null,
  };
}

/** Water of what is roasted: as it was measured for the load, else of its lot, else as beans are stored. */
export function moistureOf(
  views: Views,
  how: { moisturePct: number | null } | null | undefined,
  holdingId: string,
): number {
  if (how?.moisturePct != null) return how.moisturePct / 100;
  const { lotId } = views.dominant(holdingId);
  const pct = lotId === null ? null : (views.workshop.lots.get(lotId)?.moisturePct ?? null);
  return pct === null ? USUAL_MOISTURE : pct / 100;
}

/** The newest logged loads of a roaster, as the fit takes them. @param nib loads of nibs instead of beans */
export async function loggedLoads(
  views: Views,
  machineId: string,
  limit: number,
  nib: boolean,
): Promise<LoggedLoadData[]> {
  const { book, roasts } = views.workshop;
  const all = views.yields.of('roast');
  const chosen: { step: Step; loadId: string; curveId: string }[] = [];
  for (let i = all.length - 1; i >= 0 && chosen.length < limit; i -= 1) {
    const step = book.steps.get(all[i]?.stepId ?? '');
    const loadId = step?.slots['good'];
    if (!step || loadId === undefined || step.machineId !== machineId) continue;
    const meta = roasts.curveOf(loadId);
    if (meta && isNib(views, step.command as Roast) === nib) chosen.push({ step, loadId, curveId: meta.id });
  }
  const curves = await views.workshop.readCurves(chosen.map(({ curveId }) => curveId));
  return chosen.flatMap(({ step, loadId, curveId }) => {
    const curve = curves.get(curveId);
    return curve ? [loggedLoad(views, step, loadId, roastCurve(curve))] : [];
  });
}

export function loggedLoad(views: Views, step: Step, loadId: string, curve: Curve): LoggedLoadData {
  const command = step.command as Roast;
  const { how } = command;
  const settings = how?.settings ?? [];
  return {
    code: views.workshop.book.holding(loadId).code,
    at: step.at,
    massG: inG(step),
    layerMm: how?.layerMm ?? null,
    moisture: moistureOf(views, command.how, loadId),
    beanStartC: how?.beanStartC ?? null,
    weightLeft: command.outG / inG(step),
    settings,
    preheatC: how?.plan?.preheatC ?? settings[0]?.setC ?? 140,
    curve: curveData(evenly(curve, FIT_READINGS)),
  };
}
