import { useState } from 'react';
import { Slider } from 'radix-ui';
import type { ActView } from '@wunsch/core/api/grind';
import { isAttended, type LocalTime } from '@wunsch/core/run/attended';
import { localIn } from '@wunsch/core/units/zone';
import { untilWords } from '../app/DueLine';
import { useWorked } from '../parts/worked';
import { useHere, useShow } from '../parts/workshop';
import { stones } from './compute';
import type { Told } from './Foretold';

const HOUR_MS = 3_600_000;
const SLOT_MS = HOUR_MS / 4;
/** Hours that a lane shows at the least and at the most. */
const LEAST_H = 24;
const MOST_H = 96;

export interface Lane {
  from: number;
  to: number;
  now: number;
}

/** The stretch of time that holds every act to come. */
export function laneOf(acts: readonly ActView[], now: number): Lane {
  const from = Math.floor(now / HOUR_MS) * HOUR_MS - HOUR_MS;
  const last = Math.max(
    now,
    ...acts.flatMap(({ doneAt, dueAt }) => (doneAt === null && dueAt !== null ? [dueAt] : [])),
  );
  const hours = Math.min(MOST_H, Math.max(LEAST_H, (last - from) / HOUR_MS + 6));
  return { from, to: from + Math.ceil(hours / 6) * 6 * HOUR_MS, now };
}

/** Hours of a lane in which somebody is there, as shares of it. */
function attendedShares(
  { from, to }: Lane,
  attended: Parameters<typeof isAttended>[0],
  local: LocalTime,
): [number, number][] {
  const found: [number, number][] = [];
  for (let at = from; at < to; at += SLOT_MS) {
    if (!isAttended(attended, local(at))) continue;
    const [left, right] = [(at - from) / (to - from), (at + SLOT_MS - from) / (to - from)];
    const last = found.at(-1);
    if (last && Math.abs(last[1] - left) < 1e-9) last[1] = right;
    else found.push([left, right]);
  }
  return found;
}

/** Times under the lane's head: every six hours, with the day where it begins. */
export function LaneHead({ lane }: { lane: Lane }) {
  const show = useShow();
  const { view } = useHere();
  const local = localIn(view.settings.timeZone);
  const marks: number[] = [];
  for (let at = lane.from; at < lane.to; at += HOUR_MS) if (local(at).minute % 360 < 60) marks.push(at);
  const far = (lane.to - lane.from) / HOUR_MS > 48;
  return (
    <div aria-hidden className="relative mx-4 h-5 text-xs text-soft">
      {marks
        .filter((at) => !far || local(at).minute % 720 < 60)
        .map((at) => (
          <span
            key={at}
            className="figure absolute -translate-x-1/2 whitespace-nowrap"
            style={{ left: `${(100 * (at - lane.from)) / (lane.to - lane.from)}%` }}
          >
            {show.time(at)}
          </span>
        ))}
    </div>
  );
}

/** One act on the lane: dragged, or moved by arrow keys a quarter of an hour at a time. What that does to the end is said. */
export function ActOnLane({
  act,
  lane,
  told,
  busy,
  move,
}: {
  act: ActView;
  lane: Lane;
  told: Told | null;
  busy: boolean;
  move: (at: number) => Promise<boolean>;
}) {
  const { view } = useHere();
  const show = useShow();
  const { attended, timeZone } = view.settings;
  const local = localIn(timeZone);
  const [to, setTo] = useState<number | null>(null);
  const expected = act.dueAt ?? told?.found.expected[act.id] ?? null;
  const at = to ?? expected ?? lane.now;
  const asked = to ?? act.night?.after ?? null;
  const effect = useWorked(
    told && asked !== null ? JSON.stringify([act.id, asked, told.study.readings, told.study.planned]) : null,
    () =>
      stones().moved((told as Told).study, { id: act.id, kind: act.kind ?? 'other', what: act.what }, asked as number),
    'grind-moved',
  );
  const place = (moment: number): number => Math.max(0, Math.min(lane.to - lane.from, moment - lane.from)) / 60_000;
  const done = async (next: number): Promise<void> => {
    if (await move(next)) setTo(null);
  };
  return (
    <>
      <Slider.Root
        className="relative flex h-11 touch-none items-center px-4 select-none"
        min={0}
        max={(lane.to - lane.from) / 60_000}
        step={15}
        disabled={busy}
        value={[place(at)]}
        onValueChange={([minutes = 0]) => setTo(lane.from + minutes * 60_000)}
      >
        <Slider.Track className="relative h-3 grow overflow-hidden rounded-full bg-sunk">
          {attendedShares(lane, attended, local).map(([left, right]) => (
            <span
              key={left}
              aria-hidden
              className="absolute inset-y-0 bg-leaf-wash"
              style={{ left: `${100 * left}%`, width: `${100 * (right - left)}%` }}
            />
          ))}
          <span
            aria-hidden
            className="absolute inset-y-0 w-0.5 bg-ink"
            style={{ left: `${(100 * (lane.now - lane.from)) / (lane.to - lane.from)}%` }}
          />
        </Slider.Track>
        <Slider.Thumb
          aria-label={`${act.what}, when`}
          aria-valuetext={show.moment(at)}
          className={`block size-8 rounded-full border-2 border-ink shadow-sm focus-visible:outline-3 focus-visible:outline-offset-2 focus-visible:outline-ink ${
            to !== null
              ? 'bg-ripe'
              : act.dueAt === null
                ? 'border-dashed bg-paper'
                : at < lane.now
                  ? 'bg-crimson-wash'
                  : 'bg-sheet'
          }`}
        />
      </Slider.Root>
      {to !== null && (
        <div
          className="flex flex-wrap items-center gap-x-4 gap-y-1 rounded-md bg-ripe-wash px-4 py-2"
          aria-live="polite"
        >
          <strong>{show.moment(to)}</strong>
          <span className="min-w-0 flex-1 basis-48 text-sm">
            {effect?.sentence ?? ''}
            {!isAttended(attended, local(to)) && ' Nobody is here then.'}
          </span>
          <button type="button" className="button button-main" disabled={busy} onClick={() => void done(to)}>
            Move it
          </button>
          <button type="button" className="button button-quiet" onClick={() => setTo(null)}>
            Leave it
          </button>
        </div>
      )}
      {to === null && act.night && (
        <div
          className="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 text-sm"
          role="group"
          aria-label={`${act.what}: nobody is here then`}
        >
          <span className="min-w-0 flex-1 basis-48">
            Nobody is here at {show.time(act.dueAt ?? 0)}.{effect && ` In the morning: ${effect.sentence}`}
          </span>
          {act.night.before !== null && (
            <button type="button" className="chip" disabled={busy} onClick={() => void done(act.night?.before ?? 0)}>
              Before we leave, {show.time(act.night.before)}
            </button>
          )}
          <button type="button" className="chip" disabled={busy} onClick={() => void done(act.night?.after ?? 0)}>
            When we come, {show.moment(act.night.after)}
          </button>
        </div>
      )}
    </>
  );
}

/** When an act is due, in words. */
export function DueWords({ act, told, now }: { act: ActView; told: Told | null; now: number }) {
  const show = useShow();
  const expected = told?.found.expected[act.id];
  if (act.doneAt !== null) return <span className="text-sm text-soft">done {show.moment(act.doneAt)}</span>;
  return (
    <span className="text-sm">
      {act.waitsWords !== null && <span className="text-soft">{act.waitsWords} </span>}
      {act.dueAt !== null ? (
        <>
          <span className="text-soft">{show.moment(act.dueAt)} </span>
          <strong className={act.dueAt < now ? 'text-crimson' : 'text-leaf'}>{untilWords(act.dueAt, now)}</strong>
        </>
      ) : expected != null ? (
        <span className="text-soft">about {show.moment(expected)}</span>
      ) : null}
    </span>
  );
}
