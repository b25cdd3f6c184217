import { DomainError } from '../errors/domain-error';
import type { LotFacts, StepKind } from '../ledger/types';
import type { Route } from '../work/stations';
import { holdClock, type CoreReading, type HoldClock, type HoldPlan } from './hold';
import { newestOf, ofKind, type BeanRecord, type BeanRecordValue, type RecordWith } from './records';

export interface HoldState {
  record: RecordWith<'hold'>;
  plan: HoldPlan;
  readings: (CoreReading & { by: 'hand' | 'probe' })[];
  /** Null when the roast is the kill step: it has no clock. */
  clock: HoldClock | null;
  released: RecordWith<'release'> | null;
}

export type Standing = 'wet' | 'sample' | 'not looked at' | 'taken in' | 'on hold' | 'refused';

export interface LotStanding {
  standing: Standing;
  decision: RecordWith<'decision'> | null;
  /** The newest hold, running or released. */
  hold: HoldState | null;
}

/** Where a lot stands between the door and the sorting table. @param records of that lot, in force; @param dried whether wet beans were weighed in dry */
export function lotStanding(
  records: readonly BeanRecord[],
  facts: Pick<LotFacts, 'form' | 'sample'>,
  dried: boolean,
): LotStanding {
  const decision = newestOf(records, 'decision');
  const hold = holdState(records);
  const running = hold !== null && hold.released === null;
  // A release answers whatever was decided before it.
  const answered = hold?.released && decision && hold.released.at >= decision.at;
  const standing: Standing =
    facts.form === 'wet' && !dried
      ? 'wet'
      : decision?.value.action === 'refuse'
        ? 'refused'
        : running || (decision?.value.action === 'hold' && !answered)
          ? 'on hold'
          : decision
            ? 'taken in'
            : facts.sample
              ? 'sample'
              : hold
                ? 'taken in'
                : 'not looked at';
  return { standing, decision, hold };
}

function holdState(records: readonly BeanRecord[]): HoldState | null {
  const record = newestOf(records, 'hold');
  if (!record) return null;
  const { method, thresholdC, hours, restart, maxGapHours } = record.value;
  const plan: HoldPlan = { method, thresholdC, hours, restart, maxGapHours };
  const released = ofKind(records, 'release').find((row) => row.at >= record.at) ?? null;
  const readings = ofKind(records, 'core')
    .filter((row) => row.at >= record.at && (released === null || row.at <= released.at))
    .map(({ at, value }) => ({ at, tempC: value.tempC, by: value.by }));
  return { record, plan, readings, clock: method === 'roast' ? null : holdClock(readings, plan), released };
}

/** Whether `mayBeWorked` would let it. */
export function canBeWorked(state: LotStanding, kind: StepKind, route: Route | undefined): boolean {
  try {
    mayBeWorked('', state, kind, route);
    return true;
  } catch {
    return false;
  }
}

/**
 * A core temperature belongs to a hold that runs, and not to the time before it; a hold ends by name, before its
 * hours are reached only with a word, which is kept.
 *
 * @param at UTC ms of the record
 * @throws DomainError `beans/no-hold`, `beans/before-hold`, `beans/hold-not-done`
 */
export function checkHoldRecord(state: LotStanding, record: BeanRecordValue, at: number): void {
  if (record.kind !== 'release' && record.kind !== 'core') return;
  const { hold } = state;
  if (!hold || hold.released)
    throw new DomainError('beans/no-hold', 'No hold is running on this lot.', [
      { path: 'record.kind', message: 'needs a running hold' },
    ]);
  if (at < hold.record.at)
    throw new DomainError('beans/before-hold', 'That is before the hold began: it would count for nothing.', [
      { path: 'at', message: 'is before the hold began' },
    ]);
  if (record.kind === 'release' && hold.clock?.done === false && record.word.length < 3)
    throw new DomainError(
      'beans/hold-not-done',
      `Only ${hold.clock.hours.toFixed(1)} of ${hold.plan.hours} h have kept the temperature. To release it all the same, say why.`,
      [{ path: 'record.word', message: 'says why it is released early' }],
    );
}

const LEAVES_THE_STORE = new Set<StepKind>(['sort', 'roast', 'winnow', 'charge']);

/**
 * Refuses to work beans that must not be worked yet. Writing off, counting, giving back and drying stay open.
 *
 * @throws DomainError `beans/wet`, `beans/refused`, `beans/on-hold`
 */
export function mayBeWorked(code: string, state: LotStanding, kind: StepKind, route: Route | undefined): void {
  if (!LEAVES_THE_STORE.has(kind)) return;
  const refuse = (reason: string, message: string, say: string): never => {
    throw new DomainError(`beans/${reason}`, message, [{ path: 'sources.0.holdingId', message: say }], { code });
  };
  if (state.standing === 'wet')
    refuse('wet', `${code} is still wet. Ferment and dry it, then weigh it in as dry.`, 'is not dry yet');
  if (state.standing === 'refused')
    refuse('refused', `${code} was refused. Take the decision back on its page if that has changed.`, 'was refused');
  if (state.standing !== 'on hold') return;
  const hold = state.hold;
  if (!hold || hold.released)
    refuse(
      'on-hold',
      `${code} is on hold. Choose how it is freed of pests, or decide again, on its page.`,
      'is on hold',
    );
  else if (hold.plan.method !== 'roast') {
    const { clock } = hold;
    const done = clock?.done
      ? 'Its hours are reached: release it by name.'
      : `${(clock?.hours ?? 0).toFixed(0)} of ${hold.plan.hours} h kept so far.`;
    refuse('on-hold', `${code} is on hold to ${hold.plan.method}. ${done}`, 'is on hold');
  } else if (!route?.stations.includes('roast'))
    refuse(
      'on-hold',
      `${code} is on hold with the roast as its kill step, but its route has no roast.`,
      'has no roast on its route',
    );
  else if (hold.record.value.toldBy === null)
    refuse(
      'on-hold',
      `${code} is on hold with the roast as its kill step, and the roast room has not been told.`,
      'waits for the roast room to be told',
    );
}
