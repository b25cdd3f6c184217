import type { WorkView } from '@wunsch/core/api/types';
import { pourNow } from '@wunsch/core/temper/pour';
import { holdOf } from '@wunsch/core/temper/windows';
import type { LiveMould } from '@wunsch/core/work/moulding';
import { useNow } from '../app/DueLine';
import { useApi } from '../parts/api';
import { ReadingLine } from '../parts/ReadingLine';
import { useHere, useShow } from '../parts/workshop';

/** The window that a pour is held in while moulds are filled from it: how long already, and where it drifts. */
export function HoldLine({
  work,
  temps,
  busy,
  log,
}: {
  work: WorkView;
  temps: LiveMould['temps'];
  busy: boolean;
  log: (tempC: number) => Promise<boolean>;
}) {
  const show = useShow();
  const { view } = useHere();
  const now = useNow(10_000);
  const code = work.sources[0]?.code ?? '';
  const windows = useApi(code === '' ? null : `/api/temper/windows/${encodeURIComponent(code)}`).data?.windows;
  if (!windows) return null;
  const hold = holdOf(windows);
  const minutes = Math.round((now - work.startedAt) / 60_000);
  const readings = temps.map(({ at, tempC }) => ({ second: (at - work.startedAt) / 1000, tempC }));
  const first = readings[0]?.second ?? 0;
  // It was melted out and seeded long before it came here.
  const state = pourNow(
    readings.length === 0 ? [] : [{ second: first - 3600, tempC: windows.melt.from }, ...readings],
    windows,
    true,
    view.settings.temperatureUnit,
  );
  const last = temps.at(-1);
  const late = minutes > hold.minutes;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2" role="group" aria-label="The pour is held">
      <p
        className={`min-w-0 flex-1 basis-72 border-l-4 pl-3 text-sm ${late || (state && state.phase !== 'working') ? 'border-crimson' : 'border-leaf'}`}
      >
        <strong>
          {last ? `${show.temp(last.tempC)}. ` : ''}
          {state?.sentence ?? `Hold it at ${show.temp(hold.from)} to ${show.temp(hold.to)}.`}
        </strong>{' '}
        {minutes} of {hold.minutes} min that it bears.{' '}
        {late ? 'It thickens: pour what is left, or stir fresh melted chocolate in.' : (state?.todo ?? '')}
      </p>
      <ReadingLine
        id={`${work.id}.bowl`}
        className="w-28"
        label="Bowl is at"
        unit={show.tempUnit}
        button="Log it"
        busy={busy}
        take={(value) => log(show.toCelsius(value))}
      />
    </div>
  );
}
