import { Link } from 'react-router';
import type { LoadView } from '@wunsch/core/api/roast';
import type { Study } from '@wunsch/core/roast/study';
import { clock } from '@wunsch/core/roast/words';
import { Section } from '../parts/pieces';
import { degreesTo } from '@wunsch/core/units/temperature';
import { useHere, useShow } from '../parts/workshop';

/** A load in figures: heat, pace, weight; against plan, model and past. */
export function LoadFigures({ load, study }: { load: LoadView; study: Study | null }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  if (!study) return null;
  const { figures, deviation, expectedWeight, killReductions } = study;
  const temp = (value: number | null | undefined): string =>
    value == null ? '–' : show.temp(Math.round(value * 10) / 10);
  const by = (value: number): string =>
    `${value >= 0 ? '+' : '−'}${Math.abs(degreesTo(value, temperatureUnit)).toFixed(1)}°`;
  const lost = (left: number): string => show.percent(1 - left);
  const rows: [name: string, value: string, note: string][] = [];
  if (figures) {
    rows.push(
      [
        'Peak',
        temp(figures.peak?.tempC),
        figures.peak ? `at ${clock(figures.peak.second)}; ended at ${temp(figures.endC)}` : '',
      ],
      [
        `Above ${show.temp(figures.baseC)}`,
        `${figures.minutesAboveBase.toFixed(1)} min`,
        `${Math.round(degreesTo(figures.areaAboveBase, temperatureUnit))} °${temperatureUnit}·min over it`,
      ],
      [
        'Climb',
        figures.climbMost ? `${by(figures.climbMost.perMin)} a minute` : '–',
        `${figures.climbMost ? `at most, at ${clock(figures.climbMost.second)}` : ''}${figures.climbEnd === null ? '' : `; ${by(figures.climbEnd)} a minute over the last three`}`,
      ],
    );
  }
  if (deviation)
    rows.push([
      'Against the plan',
      `${by(deviation.meanC)} on the mean`,
      `typically ${degreesTo(deviation.rmsC, temperatureUnit).toFixed(1)}° off; ${by(deviation.most.byC)} at ${clock(deviation.most.second)}; ${by(deviation.endByC)} at the end`,
    ]);
  rows.push([
    'Weight lost',
    lost(load.weightLeft),
    [
      expectedWeight ? `the model says ${lost(expectedWeight.high)} to ${lost(expectedWeight.low)}` : '',
      load.past ? `${load.past.n} earlier loads of these beans by that program lost ${lost(load.past.mean)}` : '',
    ]
      .filter(Boolean)
      .join('; '),
  ]);
  return (
    <Section title="In figures" aside="minutes and degrees from the smoothed curve of the bean probe">
      <dl className="rows">
        {rows.map(([name, value, note]) => (
          <div key={name} className="grid gap-x-4 py-2 sm:grid-cols-[9rem_13rem_minmax(0,1fr)] sm:items-baseline">
            <dt className="text-soft">{name}</dt>
            <dd className="figure text-xl">{value}</dd>
            <dd className="text-sm text-soft">{note}</dd>
          </div>
        ))}
        {figures && <Bands figures={figures} />}
        <div className="grid gap-x-4 py-2 sm:grid-cols-[9rem_minmax(0,1fr)] sm:items-baseline">
          <dt className="text-soft">Heat-kill figure</dt>
          <dd className="text-sm">
            {killReductions === null ? (
              <>
                None: no validated D and z are entered for {load.roaster ?? 'a roaster'}.{' '}
                <Link className="link" to="/roasting/roasters">
                  Roasters
                </Link>
              </>
            ) : (
              <>
                <span className="figure text-xl">{killReductions.toFixed(1)} decimal reductions</span> where the probe
                sat, by {load.kill?.source} (D {load.kill?.dMin} min at {show.temp(load.kill?.refC ?? 0)}, z{' '}
                {load.kill?.zC} °C). Your food-safety plan decides.
              </>
            )}
          </dd>
        </div>
      </dl>
    </Section>
  );
}

/** Minutes between bean temperatures, as one bar in proportion. */
function Bands({ figures: { bands, minutes } }: { figures: NonNullable<Study['figures']> }) {
  const show = useShow();
  const spent = bands.filter((band) => band.minutes >= 0.05);
  return (
    <div className="grid gap-x-4 py-2 sm:grid-cols-[9rem_minmax(0,1fr)] sm:items-baseline">
      <dt className="text-soft">Minutes in bands</dt>
      <dd>
        <ul className="flex gap-1">
          {spent.map(({ fromC, toC, minutes: span }) => (
            <li
              key={fromC}
              className="min-w-14 border-t-4 border-leaf pt-1 text-sm"
              style={{ flexGrow: span, flexBasis: `${(60 * span) / Math.max(1, minutes)}%` }}
            >
              <span className="figure text-lg">{span.toFixed(1)}</span>
              <span className="block text-soft">
                {toC === null
                  ? `over ${Math.round(show.fromCelsius(fromC))}°`
                  : `${Math.round(show.fromCelsius(fromC))}–${Math.round(show.fromCelsius(toC))}°`}
              </span>
            </li>
          ))}
        </ul>
      </dd>
    </div>
  );
}
