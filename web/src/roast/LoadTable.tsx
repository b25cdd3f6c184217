import { Link } from 'react-router';
import type { LoadRow } from '@wunsch/core/api/roast';
import { clock } from '@wunsch/core/roast/words';
import { fixedTemperature } from '@wunsch/core/units/temperature';
import { useApi } from '../parts/api';
import { Listing, type Column } from '../parts/listing';
import { useHere, useShow } from '../parts/workshop';

export function useLoads(limit: number, family = '', before = ''): LoadRow[] | undefined {
  const query = new URLSearchParams({
    limit: String(limit),
    ...(family === '' ? {} : { family }),
    ...(before === '' ? {} : { before }),
  });
  return useApi(`/api/roast/loads?${query.toString()}`).data?.loads;
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
  const columns: Column<LoadRow>[] = [
    {
      id: 'code',
      head: 'Load',
      value: ({ code, name }) => `${code} ${name}`,
      show: ({ code, name, at }) => (
        <>
          <Link className="code link" to={`/roasting/load/${code}`}>
            {code}
          </Link>{' '}
          {name}
          <span className="block text-sm text-soft">{show.moment(at)}</span>
        </>
      ),
    },
    { id: 'at', head: 'When', extra: true, value: ({ at }) => show.clock(at), show: ({ at }) => show.moment(at) },
    { id: 'family', head: 'Beans', extra: true, value: ({ family }) => family, filter: 'all beans' },
    {
      id: 'program',
      head: 'Program',
      value: ({ program }) => program,
      show: ({ program, roaster }) => (
        <span className="text-soft">
          {program ?? 'no program'}
          {roaster !== null && <span className="block text-sm">{roaster}</span>}
        </span>
      ),
    },
    { id: 'roaster', head: 'Roaster', extra: true, value: ({ roaster }) => roaster },
    {
      id: 'in',
      head: 'In',
      unit: 'g',
      right: true,
      value: ({ inG }) => inG,
      show: ({ inG }) => show.mass(inG * 1000),
    },
    {
      id: 'minutes',
      head: 'Time',
      unit: 'min',
      right: true,
      value: ({ minutes }) => minutes,
      show: ({ minutes }) => (minutes === null ? '–' : clock(minutes * 60)),
    },
    {
      id: 'end',
      head: 'Beans at the end',
      unit: '°C',
      right: true,
      value: ({ endC }) => endC,
      show: ({ endC, curve }) => (
        <>
          {endC === null ? '–' : fixedTemperature(endC, temperatureUnit)}
          {!curve && <span className="block text-sm text-soft">no curve</span>}
        </>
      ),
    },
    {
      id: 'lost',
      head: 'Lost',
      unit: '%',
      right: true,
      value: ({ weightLeft }) => Number((100 * (1 - weightLeft)).toFixed(2)),
      show: ({ weightLeft }) => show.percent(1 - weightLeft),
    },
    {
      id: 'score',
      head: 'Score',
      right: true,
      value: ({ score }) => score,
      show: ({ score }) => (score === null ? '–' : score.toFixed(1)),
    },
  ];
  return (
    <Listing
      label="Roast loads"
      rows={loads}
      columns={columns}
      rowId={({ loadId }) => loadId}
      sort=""
      pageSize={40}
      {...(toggle && {
        lead: {
          head: 'Compare',
          cell: ({ code }: LoadRow) => (
            <label className="inline-flex min-h-11 min-w-11 items-center">
              <input
                type="checkbox"
                className="size-5"
                aria-label={`Compare ${code}`}
                checked={chosen?.includes(code) ?? false}
                disabled={!(chosen?.includes(code) ?? false) && (chosen?.length ?? 0) >= 6}
                onChange={() => toggle(code)}
              />
            </label>
          ),
        },
        marked: ({ code }: LoadRow) => chosen?.includes(code) ?? false,
      })}
    />
  );
}
