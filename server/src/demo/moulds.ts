import { changeMould } from '../mould/work';
import { normals, seeded } from '@wunsch/core/stats/chance';
import type { Seen } from '@wunsch/core/ledger/types';
import type { BarFault } from '@wunsch/core/work/moulding';
import { seedOf } from '../devices/gauge';
import type { Workshop } from '../journal/workshop';
import { Doors } from './schedule';

const MINUTE = 60_000;
export const TABLET = 'tablet-70';

/** The moulds of the house, cleaned a week ago, and its cabinet. */
export function describeMoulds(workshop: Workshop, began: number, now: number): void {
  const doors = new Doors(workshop.settings);
  const head = (at: number) => ({ personId: 'tomo', at: new Date(doors.beforeClosing(at)).toISOString() });
  const rows = [
    [TABLET, 'Tablet, 24 pieces', 3, 70, 44, false],
    ['small-20', 'Small bar', 8, 20, 20, false],
    ['shell-12', 'Shells, painted', 24, 12, 12, true],
  ] as const;
  for (const [mouldId, name, cavities, cavityG, owned, painted] of rows) {
    const facts = { name, cavities, cavityG, owned, painted, retired: false };
    workshop.addRecord('mould', { kind: 'mould', mouldId, facts }, head(began));
  }
  workshop.addRecord('mould', { kind: 'cabinet', moulds: 20, minutes: 25 }, head(began));
  for (const [mouldId] of rows.slice(0, 2))
    workshop.addRecord(
      'mould',
      { kind: 'cleaned', mouldId, how: 'washed warm, dried, polished' },
      head(now - 6 * 86_400_000),
    );
}

/** What was weighed and what was wrong with the seconds of a moulding: a depositor that drifts a little as it fills. */
export function moulded(
  code: string,
  meanG: number,
  seconds: number,
): { weightsG: number[]; faults: { fault: BarFault; pieces: number }[] } {
  const chance = seeded(seedOf(`mould ${code}`));
  const normal = normals(chance);
  const drift = 0.06 * normal();
  const weightsG = Array.from(
    { length: 8 + Math.floor(10 * chance()) },
    (_, i) => Math.round(10 * (meanG + drift * i + 0.8 * normal())) / 10,
  );
  const air = Math.floor(seconds * chance());
  const faults: { fault: BarFault; pieces: number }[] = [
    { fault: 'air', pieces: air },
    { fault: 'broken', pieces: seconds - air },
  ];
  return { weightsG, faults: faults.filter(({ pieces }) => pieces > 0) };
}

/** When somebody looked at the bars of a batch again, and what was seen; not every time that it was due. */
export function looksAtBars(code: string): { day: number; seen: Seen[] }[] {
  const chance = seeded(seedOf(`looks ${code}`));
  return [1.1, 7.2, 30.4].flatMap((day) => {
    const [looked, dull] = [chance() < 0.55, chance() < 0.06];
    return looked ? [{ day, seen: dull ? ['dull' as const] : ['glossy' as const, 'snaps' as const] }] : [];
  });
}

/** Moulding that is under way: two groups out, one setting, a few bars weighed. */
export function fillMoulds(workshop: Workshop, workId: string, now: number): void {
  const fill = (id: string, minutes: number, moulds: number, outAt: number | null) => ({
    id,
    at: now - minutes * MINUTE,
    moulds,
    outAt,
  });
  changeMould(workshop, workId, (mould) => ({
    ...mould,
    barG: 70,
    mouldId: TABLET,
    setMin: 25,
    fills: [fill('a', 58, 20, now - 31 * MINUTE), fill('b', 29, 20, now - 2 * MINUTE), fill('c', 11, 14, null)],
    weightsG: moulded(workId, 70.6, 0).weightsG,
  }));
}
