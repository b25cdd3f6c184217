import { useState } from 'react';
import type { RoasterView } from '@wunsch/core/api/roast';
import { expectLoad, fitWords } from '@wunsch/core/roast/fit';
import { layerOf, layerWords } from '@wunsch/core/roast/program';
import { degreesTo } from '@wunsch/core/units/temperature';
import { send } from '../parts/api';
import { Empty, Loading, Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { useFit, useRoasters } from './compute';
import { RoasterForm } from './RoasterForm';
import { RoastingHead } from './RoastingNav';
import { ROASTER_NAMES } from './words';

/** What roasts here, what it really carries, and what its loads have taught about it. */
export function RoastersPage() {
  const roasters = useRoasters();
  const [adding, setAdding] = useState(false);
  if (!roasters) return <Loading />;
  return (
    <>
      <RoastingHead title="Roasters">
        A drum, a kitchen oven or a pan over fire: what it really carries, how it is set, and what has been validated.
      </RoastingHead>
      {roasters.length === 0 && !adding && (
        <Empty title="No roaster yet.">
          An oven in a kitchen counts. Its loads will teach what it does; until then such roasters’ usual figures stand
          in.
        </Empty>
      )}
      {[...roasters.filter(({ retired }) => !retired), ...roasters.filter(({ retired }) => retired)].map((roaster) => (
        <RoasterSection key={roaster.id} roaster={roaster} />
      ))}
      {adding ? (
        <Section title="A new roaster">
          <RoasterForm
            close={() => setAdding(false)}
            save={(body, key) => send('POST', '/api/workshop/machines', body, key)}
          />
        </Section>
      ) : (
        <button type="button" className="button mt-6" onClick={() => setAdding(true)}>
          Add a roaster
        </button>
      )}
    </>
  );
}

function RoasterSection({ roaster }: { roaster: RoasterView }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const [editing, setEditing] = useState(false);
  const fit = useFit(roaster, false);
  const { facts, minG, maxG } = roaster;
  const kill = facts.kill;
  const full = maxG ?? 5000;
  const layerMm = layerOf(full, facts);
  const taught = fit && fit.loads.length > 0 ? expectLoad(fit, { massG: full, layerMm }) : null;
  const figure = ({ mean, low, high }: { mean: number; low: number; high: number }): string =>
    `${Math.exp(mean).toFixed(3)} a minute (${Math.exp(low).toFixed(3)} to ${Math.exp(high).toFixed(3)})`;
  return (
    <Section
      title={roaster.name}
      aside={`${roaster.loads} ${roaster.loads === 1 ? 'load' : 'loads'}, ${roaster.curves} with a curve${roaster.retired ? ', no longer used' : ''}`}
    >
      {editing ? (
        <RoasterForm
          roaster={roaster}
          close={() => setEditing(false)}
          save={(body) => send('PUT', `/api/workshop/machines/${roaster.id}`, body)}
        />
      ) : (
        <div className="grid gap-x-12 gap-y-3 lg:grid-cols-2">
          <div>
            <p>
              {ROASTER_NAMES[facts.kind]}
              {maxG !== null &&
                `, really carries ${minG === null ? 'up to' : `${show.mass(minG * 1000)} to`} ${show.mass(maxG * 1000)}`}
              {facts.trays !== null && `, ${facts.trays} trays`}
              {facts.trayCm2 !== null && ` of ${facts.trayCm2} cm²`}
              {layerMm !== null && `: a full load lies ${layerWords(layerMm)}`}. Preheats in {facts.preheatMin} min;{' '}
              {facts.setBy === 'hand' ? 'somebody turns the dial' : 'it runs a program by itself'}.
              {facts.how !== '' && ` ${facts.how}`}
            </p>
            <p className="mt-2 text-sm text-soft">
              {kill === null
                ? 'No validation is entered: no heat-kill figure is shown for its loads.'
                : `Validated (${kill.source}): D ${kill.dMin} min at ${show.temp(kill.refC)}, z ${kill.zC} °C${kill.wanted === null ? '' : `, ${kill.wanted} reductions asked for`}.`}
            </p>
            <button type="button" className="button mt-3" onClick={() => setEditing(true)}>
              Change
            </button>
          </div>
          <div className="text-sm">
            <p>{fit ? fitWords(fit, temperatureUnit) : 'Reading its loads …'}</p>
            {fit && taught && (
              <dl className="rows mt-2 text-soft">
                <Taught name="Beans take on the warmth of the air" value={figure(taught.warming)} />
                <Taught name={`Water leaves at ${show.temp(120)}`} value={figure(taught.drying)} />
                <Taught
                  name="Air"
                  value={`${fit.air.lagMin.toFixed(1)} min to two thirds of a new setting, ${degreesTo(fit.air.underC, temperatureUnit).toFixed(0)}° under it; falls ${degreesTo(fit.air.dipC, temperatureUnit).toFixed(0)}° as the load goes in`}
                />
              </dl>
            )}
            {taught && (
              <p className="mt-1 text-soft">
                For a full load of {show.mass(full * 1000)}; the ranges hold eight in ten of the next loads.
              </p>
            )}
          </div>
        </div>
      )}
    </Section>
  );
}

const Taught = ({ name, value }: { name: string; value: string }) => (
  <div className="flex justify-between gap-4 py-1.5">
    <dt>{name}</dt>
    <dd className="text-right text-ink">{value}</dd>
  </div>
);
