import { localIn } from '@wunsch/core/units/zone';
import { Doors } from '../src/demo/schedule';
import { settingsAt } from '../src/demo/scenario';

const HALF_HOUR = 1_800_000;
/** Three weeks of half hours, over the nights on which clocks change. */
const weeks = [Date.UTC(2026, 2, 16), Date.UTC(2026, 9, 14)].flatMap((from) =>
  Array.from({ length: 21 * 48 }, (_, i) => from + i * HALF_HOUR),
);

test('whatever the clock says, it is a busy hour of a working day at the demo’s town', () => {
  for (const now of weeks) {
    const { timeZone, attended } = settingsAt(now);
    const { minute, weekday } = localIn(timeZone)(now);
    expect([new Date(now).toISOString(), attended.days.includes(weekday)]).toEqual([new Date(now).toISOString(), true]);
    expect(minute).toBeGreaterThanOrEqual(9 * 60);
    expect(minute).toBeLessThanOrEqual(16.5 * 60);
  }
});

test('it lies in Europe as long as somebody is at work there', () => {
  for (const now of weeks) {
    const { minute, weekday } = localIn('Europe/Lisbon')(now);
    const isBusy = weekday !== 7 && minute >= 9 * 60 && minute <= 16.5 * 60;
    if (isBusy)
      expect(settingsAt(now)).toMatchObject({ timeZone: 'Europe/Lisbon', attended: { days: [1, 2, 3, 4, 5, 6] } });
  }
});

test('what would fall on a night is done at the next opening, or before the last closing, in its order', () => {
  const settings = settingsAt(Date.UTC(2026, 10, 26, 2, 30));
  const doors = new Doors(settings);
  const local = localIn(settings.timeZone);
  const { days, fromMin, toMin } = settings.attended;
  const isOpen = (at: number): boolean => {
    const { minute, weekday } = local(at);
    return days.includes(weekday) && minute >= fromMin - 1 && minute <= toMin + 26;
  };
  let [before, after] = [-Infinity, -Infinity];
  for (const at of weeks.slice(0, 21 * 48)) {
    const [early, late, morning] = [doors.beforeClosing(at), doors.afterOpening(at), doors.inMorning(at)];
    for (const when of [early, late, morning]) expect(isOpen(when)).toBe(true);
    expect(early).toBeGreaterThanOrEqual(before);
    // What is put off keeps its order; what is done at its own time does not wait for it.
    if (late > at) expect(late).toBeGreaterThanOrEqual(after);
    expect(late).toBeGreaterThanOrEqual(at);
    expect(local(morning).minute).toBeLessThanOrEqual((fromMin + toMin) / 2);
    [before, after] = [early, late > at ? late : after];
  }
});
