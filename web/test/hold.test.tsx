/** @jest-environment jsdom */
import { cleanup, screen } from '@testing-library/react';
import type { BeanLotView, HoldView } from '@wunsch/core/api/beans';
import { USUAL_HOLD } from '@wunsch/core/beans/hold';
import { HoldPanel } from '../src/beans/HoldPanel';
import { field, fill, hands, press, refusal, Server, show, type Setting } from './page';

/* A lot on hold for pests: how it is begun, what its clock says, and who releases it. */

const HOUR = 3_600_000;
const SINCE = Date.UTC(2026, 10, 20, 8);

const hold = (more: Partial<HoldView> = {}, clock: Partial<NonNullable<HoldView['clock']>> = {}): HoldView =>
  ({
    recordId: 'r1',
    since: SINCE,
    person: 'Tomo',
    value: { kind: 'hold', method: 'freeze', place: 'chest freezer', probe: false },
    plan: USUAL_HOLD.freeze,
    clock: {
      hours: 30.2,
      share: 0.18,
      done: false,
      doneAt: null,
      holding: true,
      expectedAt: SINCE + 170 * HOUR,
      breaks: [],
      kept: [],
      ...clock,
    },
    readings: [{ at: SINCE + HOUR, tempC: -19, by: 'hand' }],
    released: null,
    toldBy: null,
    ...more,
  }) as HoldView;

const lot = (more: object = {}): BeanLotView =>
  ({
    code: 'L010',
    standing: 'on hold',
    hold: null,
    route: { name: 'Whole bean', stations: ['beans', 'sort', 'roast'] },
    ...more,
  }) as BeanLotView;

const page = (of: BeanLotView, setting: Setting = {}): Server => {
  const server = new Server();
  show(<HoldPanel lot={of} />, setting);
  return server;
};
const sent = ({ sent: rows }: Server): unknown => rows.at(-1)?.body['record'];
const isTicked = (name: RegExp): boolean => {
  const box = screen.getByRole('checkbox', { name });
  return (box as HTMLInputElement).checked || box.getAttribute('aria-checked') === 'true';
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

describe('is begun', () => {
  test('as is usual, by one press; no core is made up for beans that are really here', async () => {
    const server = page(lot());
    expect(isTicked(/A simulated probe/u)).toBe(false);
    await fill('What was seen', 'webbing in sack 3');
    await press('Begin the hold');
    expect(server.sent[0]?.path).toBe('/api/beans/lots/L010/records');
    expect(sent(server)).toEqual({
      kind: 'hold',
      method: 'freeze',
      thresholdC: -18,
      hours: 168,
      restart: true,
      maxGapHours: 12,
      place: '',
      probe: false,
      toldBy: null,
      why: 'webbing in sack 3',
    });
  });

  test('in the demo, whose beans are made up, the probe is proposed', () => {
    page(lot(), { settings: { demo: true } });
    expect(isTicked(/A simulated probe/u)).toBe(true);
  });

  test('with heat, and figures of one’s own in the workshop’s degrees', async () => {
    const server = page(lot(), { settings: { temperatureUnit: 'F' } });
    await press('Heat');
    await fill('Core at or over (°F)', '140');
    await fill('For so many hours', '12,5');
    await press('Begin the hold');
    expect(sent(server)).toMatchObject({ method: 'heat', hours: 12.5, maxGapHours: 2 });
    expect((sent(server) as { thresholdC: number }).thresholdC).toBeCloseTo(60, 6);
  });

  test('figures that are none are told at their field, and nothing begins', async () => {
    const server = page(lot());
    await fill('For so many hours', 'a week');
    expect(field('For so many hours').getAttribute('aria-invalid')).toBe('true');
    await press('Begin the hold');
    expect(refusal()).toBe('Temperature and hours are numbers.');
    expect(server.sent).toEqual([]);
  });

  test('with the roast as the kill step: the roast room is told by name, or is not', async () => {
    const server = page(lot());
    await press('Roast as kill step');
    await press('Begin the hold');
    expect(sent(server)).toMatchObject({ method: 'roast', restart: false, probe: false, toldBy: null });
    cleanup();
    const told = page(lot());
    await press('Roast as kill step');
    await hands.click(screen.getByRole('checkbox', { name: /I have told the roast room/u }));
    await press('Begin the hold');
    expect(sent(told)).toMatchObject({ method: 'roast', toldBy: 'ilse' });
  });

  test('a route without a roast cannot rely on one, and it says so', async () => {
    page(lot({ route: { name: 'Unroasted', stations: ['beans', 'winnow', 'grind'] } }));
    await press('Roast as kill step');
    expect(screen.getByText('Its route, Unroasted, has no roast: choose another way.')).toBeTruthy();
  });

  test('of a lot that is taken in it is offered, not shown; half typed it opens again', async () => {
    page(lot({ standing: 'taken in' }));
    expect(screen.queryByLabelText('What was seen')).toBeNull();
    await press('Put it on hold for pests');
    await fill('What was seen', 'larvae');
    cleanup();
    page(lot({ standing: 'taken in' }));
    expect(field('What was seen').value).toBe('larvae');
  });

  test('the usual figures and what to be careful of stand beside it', () => {
    page(lot());
    expect(screen.getByText(/−18 °C or colder in the middle of the sack for 7 days/u)).toBeTruthy();
    expect(screen.getByText(/Your food-safety plan decides/u)).toBeTruthy();
  });
});

describe('runs', () => {
  const running = (more: Partial<HoldView> = {}, clock: Partial<NonNullable<HoldView['clock']>> = {}): BeanLotView =>
    lot({ hold: hold(more, clock) });
  const words = (): string => document.body.textContent.replaceAll('\u00a0', ' ');

  test('hours kept of those planned, and when it is reached if it keeps', () => {
    page(running());
    expect(words()).toContain('30 of 168 h');
    expect(words()).toContain('kept at or under −18 °C');
    expect(screen.getByRole('progressbar').getAttribute('aria-valuenow')).toBe('18');
  });

  test('too warm, its clock stands, and it says what the core is', () => {
    page(running({ readings: [{ at: SINCE, tempC: -10, by: 'hand' }] }, { holding: false, expectedAt: null }));
    expect(words()).toContain('and the clock stands: the core is at −10 °C, it has to be at or under −18 °C.');
    cleanup();
    page(running({ readings: [] }, { holding: false, hours: 0, expectedAt: null }));
    expect(words()).toContain('and no core temperature read yet.');
  });

  test('what broke it and what that cost is said, and that gaps count for nothing', () => {
    const at = SINCE + 20 * HOUR;
    page(
      running(
        {},
        {
          breaks: [
            { from: at, to: at + 2 * HOUR, why: 'temperature', lostHours: 19.6 },
            { from: at, to: at + 30 * HOUR, why: 'gap', lostHours: 30 },
          ],
        },
      ),
    );
    expect(words()).toContain('the core broke the plan for 2 h; 20 h were lost and it began again.');
    expect(words()).toContain('Gaps of more than 12 h between readings count for nothing.');
  });

  test('a core is logged in the workshop’s degrees, now or at a time of its clock', async () => {
    const server = page(running(), { settings: { temperatureUnit: 'F' } });
    await fill('Core (°F)', '-4');
    await fill('When (empty: now)', '2026-11-21 07:30');
    await press('Log it');
    expect(sent(server)).toMatchObject({ kind: 'core', by: 'hand' });
    expect((sent(server) as { tempC: number }).tempC).toBeCloseTo(-20, 6);
    expect(server.sent[0]?.body['at']).toBe('2026-11-21T07:30:00.000Z');
    expect(field('Core (°F)').value).toBe('');
  });

  test('a release that got no answer is one when it is pressed again', async () => {
    const server = page(running({}, { done: true, doneAt: SINCE + 168 * HOUR }));
    server.vanish();
    await press('Release L010');
    expect(refusal()).toContain('The server does not answer.');
    await press('Release L010');
    expect(server.sent[1]).toEqual(server.sent[0]);
  });

  test('what is no temperature is told and not logged', async () => {
    const server = page(running());
    await press('Log it');
    expect(refusal()).toBe('Type the core temperature that was read.');
    await fill('Core (°C)', 'cold');
    expect(screen.getByText('is not a number')).toBeTruthy();
    await press('Log it');
    expect(server.sent).toEqual([]);
  });

  test('released before its time it asks why; after it, a word may go with it', async () => {
    const server = page(running());
    server.refuse('The plan was not kept: 30 of 168 h. To release it all the same, say why.');
    await press('Release L010');
    expect(refusal()).toContain('say why');
    await fill('Why released early', 'x-rayed, empty');
    await press('Release L010');
    expect(sent(server)).toEqual({ kind: 'release', word: 'x-rayed, empty' });
    cleanup();
    page(running({}, { done: true, doneAt: SINCE + 168 * HOUR, holding: true, share: 1, hours: 168 }));
    expect(words()).toContain('Release it by name.');
    expect(field('A word with the release')).toBeTruthy();
  });

  test('hours of a simulated probe are said to prove nothing, but in the demo', () => {
    const value = { kind: 'hold', method: 'freeze', place: '', probe: true } as HoldView['value'];
    page(running({ value }));
    expect(screen.getByText(/proves nothing about these beans/u)).toBeTruthy();
    cleanup();
    page(running({ value }), { settings: { demo: true } });
    expect(screen.queryByText(/proves nothing about these beans/u)).toBeNull();
  });
});

describe('with the roast as kill step', () => {
  const roasting = (toldBy: string | null): BeanLotView =>
    lot({
      hold: hold({
        clock: null,
        toldBy,
        plan: USUAL_HOLD.roast,
        value: { kind: 'hold', method: 'roast', place: '', probe: false, why: 'moth' } as HoldView['value'],
      }),
    });

  test('nothing goes on until the roast room is told by name', async () => {
    const server = page(roasting(null));
    expect(screen.getByText('The roast is the kill step, but the roast room has not been told.')).toBeTruthy();
    await press('I have told the roast room');
    expect(sent(server)).toMatchObject({ kind: 'hold', method: 'roast', why: 'moth', toldBy: 'ilse' });
  });

  test('told, it says by whom, and that only a validated roast counts', async () => {
    const server = page(roasting('Tomo'));
    expect(screen.getByText(/^Tomo told the roast room\./u)).toBeTruthy();
    expect(screen.getByText(/only if it was validated for this load/u)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'I have told the roast room' })).toBeNull();
    await press('End the hold');
    expect(sent(server)).toEqual({ kind: 'release', word: 'hold ended' });
  });

  test('nobody at the bench can tell nobody', () => {
    page(roasting(null), { personId: null });
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'I have told the roast room' }).disabled).toBe(true);
  });
});
