import { Link } from 'react-router';
import type { LoadView } from '@wunsch/core/api/roast';
import { MEASURES } from '@wunsch/core/roast/compare';
import { Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { useWorked } from '../parts/worked';
import { roasting, useLoadViews } from './compute';

const MOST = 8;

/** The loads that share a bowl or winnowing, or may: how far apart they lie, and whether one should stay out. */
export function FillSection({ load }: { load: LoadView }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const codes = load.fill.slice(0, MOST);
  const { loads } = useLoadViews(codes.length > 1 ? codes : []);
  const answer = useWorked(
    loads ? `${temperatureUnit} ${loads.map(({ code, source }) => `${code}${source}`).join()}` : null,
    () => roasting().fill(loads ?? [], temperatureUnit),
  );
  if (codes.length < 2 || !answer) return null;
  const { verdict, measures } = answer;
  const odd = new Set(verdict.odd.map(({ code }) => code));
  return (
    <Section
      title={
        load.fillOf === null ? `${codes.length} loads that could go into one fill` : `${codes.length} loads in one fill`
      }
      aside={
        <Link
          className="link inline-flex min-h-11 items-center"
          to={`/roasting/compare?codes=${codes.slice(0, 6).join(',')}`}
        >
          Lay them over one another
        </Link>
      }
    >
      <p className={`figure text-xl leading-snug ${odd.size > 0 ? 'text-crimson' : ''}`}>{verdict.sentence}</p>
      <div className="mt-3 overflow-x-auto">
        <table className="w-full min-w-[26rem] text-left text-sm">
          <thead>
            <tr className="label">
              <th className="py-1 pr-4 font-normal">Load</th>
              <th className="py-1 pr-4 text-right font-normal">{MEASURES.endC.name(temperatureUnit)}</th>
              <th className="py-1 pr-4 text-right font-normal">{MEASURES.area.name(temperatureUnit)}</th>
              <th className="py-1 text-right font-normal">{MEASURES.weightLeft.name(temperatureUnit)}</th>
            </tr>
          </thead>
          <tbody>
            {measures.map(({ code, endC, area, weightLeft }) => (
              <tr key={code} className="border-t border-rule">
                <td className="py-1.5 pr-4">
                  <Link className="code link" to={`/roasting/load/${code}`}>
                    {code}
                  </Link>
                  {odd.has(code) && <strong className="ml-2 text-crimson">the odd one</strong>}
                </td>
                <td className="py-1.5 pr-4 text-right">
                  {endC === null ? '–' : show.temp(Math.round(endC * 10) / 10)}
                </td>
                <td className="py-1.5 pr-4 text-right">
                  {area === null ? '–' : MEASURES.area.words(area, temperatureUnit)}
                </td>
                <td className="py-1.5 text-right">{weightLeft === null ? '–' : show.percent(1 - weightLeft)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Section>
  );
}
