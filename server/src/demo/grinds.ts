import { planAct, usualActs } from '@wunsch/core/grind/acts';
import { lifeOf } from '@wunsch/core/grind/running';
import { simulatedBowlC } from '@wunsch/core/grind/simulated-bowl';
import { normals, seeded } from '@wunsch/core/stats/chance';
import { thinned } from '@wunsch/core/run/log';
import { AGEING, rowOf } from '../devices/bowl-probe';
import { seedOf, stonesOf } from '../devices/gauge';
import type { Demo } from './generator';
import { DAY, HOUR } from './schedule';

/*
 * What happens at the stones and on the shelf beside the grinding: tastes, a spill, a probe. Its chance is its own, by
 * the batch, so that it changes nothing else that the demo does.
 */

interface Bowl {
  id: string;
  code: string;
  g: number;
}

/** Over so many grams the small bowl runs over. */
const SPILLS_G = 14_600;

export function spillIfTooFull(demo: Demo, bowl: Bowl, at: number, personId: string): void {
  if (bowl.g <= SPILLS_G) return;
  demo.after(at, () =>
    demo.record(
      { kind: 'reading', batchId: bowl.id, what: 'spilled', value: null, note: 'Over the rim once the sugar was in' },
      at,
      personId,
    ),
  );
}

const score = (value: number): number => Math.max(0, Math.min(10, Math.round(2 * value) / 2));

/** Sourness leaves on the stones, quickly at first; tasters round, and differ. */
export function tasteOnTheStones(
  demo: Demo,
  bowl: Bowl,
  { startedAt, hours, personId }: { startedAt: number; hours: number; personId: string },
): void {
  const chance = seeded(seedOf(bowl.code) + 3);
  const normal = normals(chance);
  const [start, end, fast] = [6.5 + 1.5 * chance(), 1.2 + 0.8 * chance(), 0.05 + 0.03 * chance()];
  for (const share of [0.35, 0.65, 0.97]) {
    // Within the time on the stones, whatever the night does to it.
    const when = Math.min(demo.hours(startedAt + share * hours * HOUR, startedAt), startedAt + 0.98 * hours * HOUR);
    const hour = (when - startedAt) / HOUR;
    const value = score(
      end + (start - end) * (0.6 * Math.exp(-fast * hour) + 0.4 * Math.exp(-0.3 * fast * hour)) + 0.4 * normal(),
    );
    demo.after(when, () =>
      demo.record({ kind: 'reading', batchId: bowl.id, what: 'sourness', value, note: '' }, when, personId),
    );
  }
}

/** Flavour settles on the shelf, most of it in the first two weeks. */
export function tasteAtRest(demo: Demo, bowl: Bowl, pouredAt: number): void {
  const normal = normals(seeded(seedOf(bowl.code) + 5));
  const level = 6 + 0.5 * normal();
  for (const day of [2, 6, 12]) {
    const when = demo.hours(pouredAt + day * DAY + 3 * HOUR, pouredAt);
    const value = score(level + 1.6 * (1 - Math.exp(-day / 6)) + 0.3 * normal());
    demo.after(when, () =>
      demo.record(
        {
          kind: 'reading',
          batchId: bowl.id,
          what: 'rest-taste',
          value,
          air: { tempC: Math.round(10 * (17.4 + 0.5 * normal())) / 10, humidityPct: Math.round(52 + 3 * normal()) },
          note: '',
        },
        when,
        'ilse',
      ),
    );
  }
}

/** The bowls on the stones now: acts planned ahead, and a probe in the first of them that has logged since it began. */
export function furnishBowls({ workshop, now }: Demo): void {
  const live = [...workshop.batches.values()].filter(({ id }) => workshop.book.live.has(id));
  for (const [index, batch] of live.entries()) {
    const startedAt = workshop.book.firstEntry(batch.id)?.at ?? now;
    for (const { kind, what, waits } of usualActs(batch.targetMicron)) {
      const past = waits.by === 'running';
      workshop.changeBatch(batch.id, (row) => {
        const at = past ? startedAt + waits.hours * HOUR : now;
        const planned = planAct(row, { id: `${batch.code}-${kind}`, what, kind, at, waits, personId: 'ilse' });
        // The lid is off and on again by now.
        return {
          ...planned,
          acts: (planned.acts ?? []).map((act) =>
            past && act.kind === kind && at < now ? { ...act, doneAt: at + 0.1 * HOUR } : act,
          ),
        };
      });
    }
    if (index > 0) continue;
    const life = lifeOf(startedAt, [], null);
    const { bowlC } = stonesOf(batch.machineId ?? batch.id);
    const rows = [];
    for (let at = startedAt; at < now; at += 5 * 60_000)
      rows.push({ at, values: [simulatedBowlC(life, bowlC, at, seedOf(batch.id))] });
    workshop.changeBatch(batch.id, (row) => ({ ...row, probe: 'simulated' }));
    workshop.addCurve(rowOf(batch, thinned(rows, now, AGEING)));
  }
}
