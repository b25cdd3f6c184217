import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { LoadView } from '@wunsch/core/api/roast';
import { MEASURES, type AlignBy } from '@wunsch/core/roast/compare';
import type { RoastFigures } from '@wunsch/core/roast/figures';
import { clock } from '@wunsch/core/roast/words';
import CompareChart from '../charts/CompareChart';
import { StrokeKey } from '../charts/strokes';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Empty, Loading } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { useWorked } from '../parts/worked';
import { roasting, useLoadViews } from './compute';
import { curveLines } from './lines';
import { useLoads } from './LoadTable';
import { RoastingHead } from './RoastingNav';
import { SelectBox } from '../parts/choice';

const MOST = 6;
const POINTS = 240;

/** Up to six loads over one another, with what became of each. */
export function ComparePage() {
  const [query, setQuery] = useSearchParams();
  const codes = [...new Set((query.get('codes') ?? '').split(',').filter(Boolean))].slice(0, MOST);
  const { loads, error } = useLoadViews(codes);
  const put = (list: readonly string[]): void => setQuery({ codes: list.join(',') }, { replace: true });
  return (
    <>
      <RoastingHead title={codes.length > 1 ? `${codes.length} loads over one another` : 'Loads over one another'} />
      {codes.length === 0 ? (
        <Empty
          title="Choose two to six loads."
          action={
            <Link className="button" to="/roasting/loads">
              To the loads
            </Link>
          }
        >
          They are laid over one another by their start, by a bean temperature or by something that was noticed.
        </Empty>
      ) : error !== undefined && loads === undefined ? (
        <Loading error={error} />
      ) : loads === undefined ? (
        <Loading />
      ) : (
        <Compared loads={loads} drop={(code) => put(codes.filter((row) => row !== code))}>
          <AddLoad codes={codes} put={put} family={loads[0]?.family ?? ''} />
        </Compared>
      )}
    </>
  );
}

function AddLoad({ codes, put, family }: { codes: readonly string[]; put: (codes: string[]) => void; family: string }) {
  const show = useShow();
  const loads = useLoads(60, family);
  if (codes.length >= MOST) return <p className="label pb-3">Six is the most that can be told apart.</p>;
  return (
    <SelectBox
      className="max-w-xl min-w-60 flex-1"
      label="Add"
      value=""
      placeholder={family === '' ? 'a load' : `another load of ${family}`}
      options={(loads ?? [])
        .filter(({ code }) => !codes.includes(code))
        .map(
          (row) =>
            [
              row.code,
              `${row.code}, ${show.moment(row.at)}, ${row.program ?? 'no program'}${
                row.score === null ? '' : `, ${row.score.toFixed(1)} of 10`
              }`,
            ] as const,
        )}
      onChange={(code) => put([...codes, code])}
    />
  );
}

interface Aligned {
  code: string;
  zeroS: number | null;
  figures: RoastFigures | null;
}

function Compared({
  loads,
  drop,
  children,
}: {
  loads: readonly LoadView[];
  drop: (code: string) => void;
  children: ReactNode;
}) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const [query, setQuery] = useSearchParams();
  const by = query.get('by') ?? 'start';
  const [degrees, setDegrees] = useState(() => String(Math.round(show.fromCelsius(100))));
  const align: AlignBy =
    by === 'start'
      ? { by: 'start' }
      : by === 'bean'
        ? { by: 'bean', tempC: show.toCelsius(readNumber(degrees) ?? show.fromCelsius(100)) }
        : { by: 'sign', what: by };
  const aligned = useWorked<Aligned[]>(JSON.stringify([loads.map(({ code, source }) => [code, source]), align]), () =>
    roasting().aligned([...loads], align),
  );
  const signs = [...new Set(loads.flatMap(({ how }) => (how?.signs ?? []).map(({ what }) => what)))];
  const zeroOf = (code: string): number | null => aligned?.find((row) => row.code === code)?.zeroS ?? null;
  const key = aligned ? JSON.stringify(aligned.map(({ code, zeroS }) => [code, zeroS])) + temperatureUnit : '';
  const lines = useMemo(() => {
    performance.mark('roast-compare-begin');
    return loads.map((load) => {
      const zeroS = zeroOf(load.code);
      const points =
        load.curveData && zeroS !== null ? curveLines(load.curveData, show.fromCelsius, zeroS, POINTS).bean : [];
      return { name: load.code, points };
    });
    // The key says which loads, where each has its zero, and in which degrees.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [key]);
  const drawn = useCallback(() => performance.measure('roast-compare', 'roast-compare-begin'), []);
  const xs = lines.flatMap(({ points }) => points.map(({ x }) => x));
  const missing = loads.filter(({ code, curveData }) => curveData && aligned && zeroOf(code) === null);
  const without = loads.filter(({ curveData }) => !curveData);
  const word =
    align.by === 'start' ? null : align.by === 'bean' ? `beans at ${show.temp(align.tempC)}` : `“${align.what}”`;
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <SelectBox
          label="Laid over one another by"
          value={by}
          options={[
            ['start', 'the start'],
            ['bean', 'a bean temperature'],
            ...signs.map((sign) => [sign, `“${sign}”`] as const),
          ]}
          onChange={(value) =>
            setQuery(
              (now) => {
                now.set('by', value);
                return now;
              },
              { replace: true },
            )
          }
        />
        {by === 'bean' && (
          <NumberBox
            label="Beans at"
            unit={`°${temperatureUnit}`}
            value={degrees}
            onChange={setDegrees}
            problem={readNumber(degrees) === null ? 'is not a number' : undefined}
            className="w-32"
          />
        )}
        {children}
      </div>
      {missing.length > 0 && (
        <p className="mt-3 rounded-md bg-ripe-wash px-4 py-2" role="note">
          {missing.map(({ code }) => code).join(', ')} never came to that: not drawn.
        </p>
      )}
      {without.length > 0 && (
        <p className="mt-3 text-soft">
          {without.map(({ code }) => code).join(', ')}: no curve was logged, only figures.
        </p>
      )}
      <div className="mt-4">
        {aligned && xs.length > 0 && (
          <CompareChart
            caption={`Bean temperature, °${temperatureUnit}, over the minutes ${word === null ? 'since each load went in' : `before and after ${word}`}`}
            lines={lines}
            unit={`°${temperatureUnit}`}
            fromMin={align.by === 'start' ? 0 : Math.floor(Math.min(...xs) / 5) * 5}
            endMin={Math.ceil(Math.max(...xs) / 5) * 5}
            zero={word}
            drawn={drawn}
          />
        )}
      </div>
      <CompareTable loads={loads} aligned={aligned} drop={drop} />
    </>
  );
}

function CompareTable({
  loads,
  aligned,
  drop,
}: {
  loads: readonly LoadView[];
  aligned: readonly Aligned[] | null;
  drop: (code: string) => void;
}) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const figuresOf = (code: string): RoastFigures | null => aligned?.find((row) => row.code === code)?.figures ?? null;
  const rows: [name: string, of: (load: LoadView) => string][] = [
    ['Beans', ({ name, at }) => `${name}, ${show.day(at)}`],
    ['Program', ({ program }) => program ?? 'none'],
    ['Load', ({ inG, roaster }) => `${show.mass(inG * 1000)}${roaster === null ? '' : `, ${roaster}`}`],
    ['Time', ({ minutes }) => (minutes === null ? '–' : clock(minutes * 60))],
    [
      'Beans at the end',
      ({ code, endC }) =>
        (figuresOf(code)?.endC ?? endC) === null
          ? '–'
          : show.temp(Math.round(10 * (figuresOf(code)?.endC ?? endC ?? 0)) / 10),
    ],
    [
      `Above ${show.temp(100)}`,
      ({ code }) => {
        const figures = figuresOf(code);
        return figures
          ? `${figures.minutesAboveBase.toFixed(1)} min, ${MEASURES.area.words(figures.areaAboveBase, temperatureUnit)}`
          : '–';
      },
    ],
    ['Weight lost', ({ weightLeft }) => show.percent(1 - weightLeft)],
    [
      'Nibs from it',
      ({ winnow }) =>
        winnow
          ? `${show.percent(winnow.nibYield)}${winnow.shell === null ? '' : `, ${show.percent(winnow.shell, 2)} shell`}`
          : 'not winnowed',
    ],
    [
      'Score',
      ({ score, scores }) => (score === null ? 'not tasted' : `${score.toFixed(1)} of 10, from ${scores.length}`),
    ],
    [
      'Noticed',
      ({ how }) => (how?.signs ?? []).map(({ what, second }) => `${what} ${clock(second)}`).join(', ') || '–',
    ],
  ];
  return (
    <div className="mt-6 overflow-x-auto">
      <table className="w-full text-left text-sm" style={{ minWidth: `${7 + 9 * loads.length}rem` }}>
        <thead>
          <tr className="align-bottom">
            <th className="w-28" />
            {loads.map(({ code }, index) => (
              <th key={code} className="pr-4 pb-1 font-normal">
                <StrokeKey index={index} />
                <span className="block">
                  <Link className="code link text-lg" to={`/roasting/load/${code}`}>
                    {code}
                  </Link>
                  <button
                    type="button"
                    className="button button-quiet px-2!"
                    aria-label={`Leave ${code} out`}
                    onClick={() => drop(code)}
                  >
                    leave out
                  </button>
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, of]) => (
            <tr key={name} className="border-t border-rule align-baseline">
              <th className="label py-1.5 pr-3 font-normal">{name}</th>
              {loads.map((load) => (
                <td key={load.code} className={`py-1.5 pr-4 ${name === 'Score' ? 'font-semibold' : ''}`}>
                  {of(load)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
