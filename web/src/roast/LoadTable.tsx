import { Link } from 'react-router';
import type { LoadRow } from '@wunsch/core/api/roast';
import { clock } from '@wunsch/core/roast/words';
import { fixedTemperature } from '@wunsch/core/units/temperature';
import { useApi } from '../parts/api';
import { useHere, useShow } from '../parts/workshop';

export function useLoads(limit: number, family = '', before = ''): LoadRow[] | undefined {
  const query = new URLSearchParams({
    limit: String(limit),
    ...(family === '' ? {} : { family }),
    ...(before === '' ? {} : { before }),
  });
  return useApi<{ loads: LoadRow[] }>(`/api/roast/loads?${query.toString()}`).data?.loads;
}

interface Props {
  loads: readonly LoadRow[];
  /** Loads chosen to be laid over one another; without it nothing can be chosen. */
  chosen?: readonly string[];
  toggle?: (code: string) => void;
}

/** Roast loads in figures. */
export function LoadTable({ loads, chosen, toggle }: Props) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const head = 'py-1 pr-4 font-normal';
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[34rem] text-left">
        <thead>
          <tr className="label">
            {toggle && <th className={head}>Compare</th>}
            <th className={head}>Load</th>
            <th className={head}>Program</th>
            <th className={`${head} text-right`}>In</th>
            <th className={`${head} text-right`}>Time</th>
            <th className={`${head} text-right`}>Beans at the end</th>
            <th className={`${head} text-right`}>Lost</th>
            <th className={`${head} pr-0! text-right`}>Score</th>
          </tr>
        </thead>
        <tbody>
          {loads.map((load) => (
            <tr key={load.loadId} className="border-t border-rule align-baseline">
              {toggle && (
                <td className="pr-4 align-middle">
                  <label className="inline-flex min-h-11 min-w-11 items-center">
                    <input
                      type="checkbox"
                      className="size-5"
                      aria-label={`Compare ${load.code}`}
                      checked={chosen?.includes(load.code) ?? false}
                      disabled={!(chosen?.includes(load.code) ?? false) && (chosen?.length ?? 0) >= 6}
                      onChange={() => toggle(load.code)}
                    />
                  </label>
                </td>
              )}
              <td className="py-2 pr-4">
                <Link className="code link" to={`/roasting/load/${load.code}`}>
                  {load.code}
                </Link>{' '}
                {load.name}
                <span className="block text-sm text-soft">{show.moment(load.at)}</span>
              </td>
              <td className="py-2 pr-4 text-soft">
                {load.program ?? 'no program'}
                {load.roaster !== null && <span className="block text-sm">{load.roaster}</span>}
              </td>
              <td className="py-2 pr-4 text-right whitespace-nowrap">{show.mass(load.inG * 1000)}</td>
              <td className="py-2 pr-4 text-right">{load.minutes === null ? '–' : clock(load.minutes * 60)}</td>
              <td className="py-2 pr-4 text-right whitespace-nowrap">
                {load.endC === null ? '–' : fixedTemperature(load.endC, temperatureUnit)}
                {!load.curve && <span className="block text-sm text-soft">no curve</span>}
              </td>
              <td className="py-2 pr-4 text-right whitespace-nowrap">{show.percent(1 - load.weightLeft)}</td>
              <td className="py-2 text-right">{load.score === null ? '–' : load.score.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
