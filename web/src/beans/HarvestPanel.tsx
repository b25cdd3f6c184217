import { lazy, Suspense } from 'react';
import type { BeanLotView, HarvestView } from '@wunsch/core/api/beans';
import { healthyBand } from '@wunsch/core/beans/harvest';
import { harvest as harvestRecord } from '@wunsch/core/beans/records';
import { formatHeavy } from '@wunsch/core/units/mass';
import { useHere, useShow } from '../parts/workshop';
import { Field } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';
import { HarvestEntries } from './HarvestEntries';
import { useRecords } from './records';
import { Overrule } from '../parts/Overrule';

const LineChart = lazy(() => import('../charts/LineChart'));
const HOUR_MS = 3_600_000;

/** Own pods: what the heap needs now, its diary as a curve against a healthy run, and the drying. */
export function HarvestPanel({ lot }: { lot: BeanLotView }) {
  if (!lot.harvest) return <Open lot={lot} />;
  return <Diary lot={lot} harvest={lot.harvest} />;
}

function Open({ lot }: { lot: BeanLotView }) {
  const { enter } = useRecords(lot.code);
  const { massSystem } = useHere().view.settings;
  const record = useRecordForm(`harvest.${lot.code}`, harvestRecord, () => ({
    openedAt: new Date(lot.receivedAt).toISOString(),
  }));
  return (
    <section className="mt-5 grid gap-4 rounded-md bg-sheet px-4 py-4" aria-label="Own harvest">
      <h2 className="text-xl">Begin the ferment diary</h2>
      <p className="text-soft">
        {formatHeavy(lot.receivedG, massSystem)} of wet beans in their pulp. The diary tells when to turn and when to
        stop.
      </p>
      <RecordSheet record={record} save={enter} submit="Begin">
        <div className="grid grid-cols-2 gap-4 sm:grid-cols-3">
          <Field at="pods" />
          <Field at="ambientC" />
        </div>
      </RecordSheet>
    </section>
  );
}

function Diary({ lot, harvest }: { lot: BeanLotView; harvest: HarvestView }) {
  const show = useShow();
  const { advice, ferment, drying, forecast } = harvest;
  const hours = (at: number): number => Math.round(((at - harvest.openedAt) / HOUR_MS) * 10) / 10;
  const cores = ferment.filter(({ value }) => value.coreC !== null);
  const lastHour = Math.max(96, ...cores.map(({ at }) => hours(at)));
  const band = Array.from({ length: Math.ceil(lastHour / 12) + 1 }, (_, index) => {
    const { low, high } = healthyBand(index * 12);
    return { x: index * 12, low: show.fromCelsius(low), high: show.fromCelsius(high) };
  });
  return (
    <section className="mt-5" aria-label="Own harvest">
      <div className={`rounded-md px-4 py-3 ${advice.tone === 'good' ? 'bg-leaf-wash' : 'bg-ripe-wash'}`}>
        <p className="figure text-2xl leading-snug">{advice.sentence}</p>
        <p className="mt-1">{advice.why}</p>
        {advice.todo !== null && <p className="mt-1 font-semibold">{advice.todo}</p>}
        {forecast?.readyAt != null && harvest.dryG === null && (
          <p className="mt-1">
            Dry about {show.moment(forecast.readyAt)} at the pace so far
            {forecast.targetG !== null && `, at ${show.mass(forecast.targetG * 1000)} on the scale`}.
          </p>
        )}
        <Overrule judged="harvest" subject={lot.id} said={advice.sentence} />
      </div>
      <p className="mt-3">
        {show.mass(harvest.wetG * 1000)} wet{harvest.value.pods !== null && ` from ${harvest.value.pods} pods`}
        {harvest.value.ambientC !== null && `, in a room of ${show.temp(harvest.value.ambientC)}`}
        {harvest.dryG !== null && (
          <>
            ; {show.mass(harvest.dryG * 1000)} dry,{' '}
            <strong>{show.percent(harvest.dryG / harvest.wetG)} of the wet</strong>
          </>
        )}
        .
      </p>
      <div className="mt-4 grid gap-6 xl:grid-cols-2">
        {cores.length > 0 && (
          <Suspense fallback={<div className="h-[200px]" />}>
            <LineChart
              caption="Middle of the heap (line) and a hand below its top (dashes), hours since opening; the band is a healthy run"
              points={cores.map(({ at, value }) => ({
                x: hours(at),
                y: value.coreC === null ? null : show.fromCelsius(value.coreC),
              }))}
              second={cores
                .filter(({ value }) => value.topC !== null)
                .map(({ at, value }) => ({ x: hours(at), y: show.fromCelsius(value.topC ?? 0) }))}
              names={['middle', 'top']}
              band={band}
              unit="°"
              hours
            />
          </Suspense>
        )}
        {drying.filter(({ value }) => value.moisturePct !== null).length > 1 && (
          <Suspense fallback={<div className="h-[200px]" />}>
            <LineChart
              caption="Moisture while drying, hours since opening"
              points={drying.flatMap(({ at, value }) =>
                value.moisturePct === null ? [] : [{ x: hours(at), y: value.moisturePct }],
              )}
              unit="%"
              threshold={{ y: 7, word: 'dry at 7 %' }}
              hours
            />
          </Suspense>
        )}
      </div>
      {harvest.dryG === null && <HarvestEntries lot={lot} dryingBegun={drying.length > 0} />}
    </section>
  );
}
