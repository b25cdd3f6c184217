import { normals, seeded } from '../stats/chance';
import type { Life } from './running';

const HOUR_MS = 3_600_000;
/** Hours in which a bowl comes two thirds of the way to what warms or cools it. */
const WARMS_H = 2.5;
const COOLS_H = 3.5;
const ROOM_C = 21;
const BEGINS_C = 36;
/** °C by which a probe in the mass wanders from one look to the next. */
const WANDERS_C = 0.15;

/**
 * What a made-up probe in a made-up bowl says: friction warms it while the stones run, it cools while they stand or are
 * lifted, the day goes up and down with the room.
 *
 * @param ownC what it would come to in the end, running in a room of 21 °C
 * @returns °C at a moment
 */
export function simulatedBowlC(life: Life, ownC: number, at: number, seed: number): number {
  let tempC = BEGINS_C;
  for (const row of life) {
    const end = Math.min(row.to ?? at, at);
    if (end <= row.from) break;
    const hours = (end - row.from) / HOUR_MS;
    const towards = row.running ? (row.lifted || row.conches ? ownC + 6 : ownC) : ROOM_C;
    tempC = towards + (tempC - towards) * Math.exp(-hours / (row.running ? WARMS_H : COOLS_H));
  }
  const day = 1.2 * Math.sin((2 * Math.PI * (at / HOUR_MS - 9)) / 24);
  const wander = normals(seeded(seed + Math.floor(at / 60_000)))();
  return Math.round((tempC + day + WANDERS_C * wander) * 10) / 10;
}
