import { USUAL_HOLD } from '../../src/beans/hold';
import { beanRecord, inForce, type BeanRecord } from '../../src/beans/records';
import { canBeWorked, checkHoldRecord, lotStanding, mayBeWorked } from '../../src/beans/state';
import type { StepKind } from '../../src/ledger/types';
import { ROUTE_TEMPLATES } from '../../src/workshop/routes';
import { refusal } from '../fixtures';

const HOUR = 3_600_000;
let clock = 0;
const record = (value: Record<string, unknown>, hoursLater = 1): BeanRecord => {
  clock += hoursLater * HOUR;
  return {
    id: `r${clock}`,
    lotId: 'l',
    at: clock,
    recordedAt: clock,
    personId: 'p',
    value: beanRecord.parse(value),
  };
};
const beans = { form: 'beans', sample: false } as const;
const route = (id: string) => ROUTE_TEMPLATES.find((row) => row.id === id);
const stands = (records: BeanRecord[], facts: Parameters<typeof lotStanding>[1] = beans, dried = false) =>
  lotStanding(inForce(records), facts, dried);
const work = (records: BeanRecord[], kind: StepKind = 'sort', routeId = 'whole-bean') =>
  refusal(() => mayBeWorked('L001', stands(records), kind, route(routeId)));

const freeze = (rest: object = {}) => record({ kind: 'hold', ...USUAL_HOLD.freeze, hours: 3, ...rest });
const cold = (hoursLater = 1) => record({ kind: 'core', tempC: -20 }, hoursLater);

describe('a lot between the door and the sorting table', () => {
  it('may be worked when nobody has looked yet, and when it was taken in', () => {
    expect(stands([]).standing).toBe('not looked at');
    expect(work([])).toBe('not refused');
    expect(work([record({ kind: 'decision', action: 'take-in' })])).toBe('not refused');
  });

  it('may not be worked on hold, and may again after the release', () => {
    const held = [freeze(), cold(), cold(), cold(), cold()];
    expect(stands(held)).toMatchObject({ standing: 'on hold', hold: { clock: { done: true } } });
    expect(work(held)).toBe('beans/on-hold');
    const freed = [...held, record({ kind: 'release', word: 'seven days kept' })];
    expect(stands(freed).standing).toBe('taken in');
    expect(work(freed)).toBe('not refused');
  });

  it('stays on hold by decision alone until a hold is run and released', () => {
    const decided = [record({ kind: 'decision', action: 'hold' })];
    expect(work(decided)).toBe('beans/on-hold');
    expect(work([...decided, freeze(), record({ kind: 'release' })])).toBe('not refused');
  });

  it('counts only readings of its own hold', () => {
    const early = cold();
    const late = [freeze(), cold(), cold()];
    expect(stands([early, ...late]).hold?.readings).toHaveLength(2);
  });

  it('with the roast as kill step needs a roast on the route and the roast room told', () => {
    const untold = [record({ kind: 'hold', ...USUAL_HOLD.roast })];
    const told = [record({ kind: 'hold', ...USUAL_HOLD.roast, toldBy: 'p' })];
    expect(work(untold)).toBe('beans/on-hold');
    expect(work(told)).toBe('not refused');
    expect(work(told, 'roast')).toBe('not refused');
    expect(work(told, 'sort', 'unroasted')).toBe('beans/on-hold');
  });

  it('can be asked about without being refused', () => {
    expect(canBeWorked(stands([freeze()]), 'sort', route('whole-bean'))).toBe(false);
    expect(canBeWorked(stands([]), 'sort', route('whole-bean'))).toBe(true);
  });

  it('refused may be sold back or written off, not worked', () => {
    const refused = [record({ kind: 'decision', action: 'refuse' })];
    expect(work(refused)).toBe('beans/refused');
    expect(work(refused, 'adjust')).toBe('not refused');
    expect(work(refused, 'sell')).toBe('not refused');
  });

  it('wet beans wait to be dried', () => {
    expect(stands([], { form: 'wet' }).standing).toBe('wet');
    expect(refusal(() => mayBeWorked('L1', stands([], { form: 'wet' }), 'sort', route('whole-bean')))).toBe(
      'beans/wet',
    );
    expect(stands([], { form: 'wet' }, true).standing).toBe('not looked at');
  });

  it('a record taken back counts no more', () => {
    const hold = freeze();
    expect(work([hold, record({ kind: 'taken-back', recordId: hold.id })])).toBe('not refused');
  });

  describe('the end of a hold', () => {
    const check = (records: BeanRecord[], value: Record<string, unknown>, at = clock) =>
      refusal(() => checkHoldRecord(stands(records), beanRecord.parse(value), at));

    it('asks for a word while the hours are not reached, and for none after', () => {
      const early = [freeze(), cold(), cold()];
      expect(check(early, { kind: 'release' })).toBe('beans/hold-not-done');
      expect(check(early, { kind: 'release', word: 'sold back' })).toBe('not refused');
      expect(check([...early, cold(), cold(), cold()], { kind: 'release' })).toBe('not refused');
    });

    it('takes no core temperature without a hold, nor from before it', () => {
      expect(check([], { kind: 'core', tempC: -20 })).toBe('beans/no-hold');
      const running = [freeze()];
      expect(check(running, { kind: 'core', tempC: -20 }, clock - HOUR)).toBe('beans/before-hold');
      expect(check(running, { kind: 'core', tempC: -20 })).toBe('not refused');
      expect(check([...running, record({ kind: 'release', word: 'over' })], { kind: 'core', tempC: -20 })).toBe(
        'beans/no-hold',
      );
    });

    it('has no say in other records', () => {
      expect(check([], { kind: 'look' })).toBe('not refused');
    });
  });
});
