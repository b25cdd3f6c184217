import { lazy, Suspense, useState } from 'react';
import type { BeanLotView, HarvestView } from '@wunsch/core/api/beans';
import { healthyBand } from '@wunsch/core/beans/harvest';
import { COLOURS, SMELLS } from '@wunsch/core/beans/words';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Chips, NumberBox, Tick } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Caution, Refusal } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { NOBODY, useRecords } from './records';

const LineChart = lazy(() => import('../charts/LineChart'));
const HOUR_MS = 3_600_000;

/** Own pods: what the heap needs now, its diary as a curve against a healthy run, and the drying. */
export function HarvestPanel({ lot }: { lot: BeanLotView }) {
  if (!lot.harvest) return <Open lot={lot} />;
  return <Diary lot={lot} harvest={lot.harvest} />;
}

function Open({ lot }: { lot: BeanLotView }) {
  const { write, busy, error } = useRecords(lot.code);
  const show = useShow();
  const [pods, setPods] = useState('');
  const [ambient, setAmbient] = useState('');
  const begin = (): void => {
    const room = readNumber(ambient);
    void write({
      kind: 'harvest',
      pods: readNumber(pods),
      ambientC: room === null ? null : show.tempIn(room),
      openedAt: new Date(lot.receivedAt).toISOString(),
    });
  };
  return (
    <section className="mt-5 grid gap-4 rounded-md bg-sheet px-4 py-4" aria-label="Own harvest">
      <h2 className="text-xl">Begin the ferment diary</h2>
      <p className="text-soft">
        {(lot.receivedG / 1000).toFixed(1)} kg of wet beans in their pulp. The diary tells when to turn and when to
        stop.
      </p>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-3">
        <NumberBox label="Pods opened" value={pods} onChange={setPods} />
        <NumberBox label="Room around the heap" unit={show.temp(0).slice(-2)} value={ambient} onChange={setAmbient} />
      </div>
      <Refusal error={error} />
      <button type="button" className="button button-main justify-self-start" disabled={busy} onClick={begin}>
        Begin
      </button>
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
    return { x: index * 12, low: show.tempOut(low), high: show.tempOut(high) };
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
                y: value.coreC === null ? null : show.tempOut(value.coreC),
              }))}
              second={cores
                .filter(({ value }) => value.topC !== null)
                .map(({ at, value }) => ({ x: hours(at), y: show.tempOut(value.topC ?? 0) }))}
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
      {harvest.dryG === null && <Entries lot={lot} dryingBegun={drying.length > 0} />}
    </section>
  );
}

function Entries({ lot, dryingBegun }: { lot: BeanLotView; dryingBegun: boolean }) {
  const [which, setWhich] = useState<'ferment' | 'drying' | 'dry'>(dryingBegun ? 'drying' : 'ferment');
  return (
    <div className="mt-5 rounded-md bg-sheet px-4 py-4">
      <Chips
        legend="Write down"
        options={[
          ['ferment', 'The heap'],
          ['drying', 'The drying'],
          ['dry', 'Weigh it in as dry'],
        ]}
        chosen={[which]}
        choose={([name]) => setWhich(name ?? 'ferment')}
      />
      <div className="mt-4">
        {which === 'ferment' && <FermentEntry lot={lot} />}
        {which === 'drying' && <DryingEntry lot={lot} />}
        {which === 'dry' && <DryEntry lot={lot} />}
      </div>
    </div>
  );
}

function FermentEntry({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const unit = show.temp(0).slice(-2);
  const { write, busy, error } = useRecords(lot.code);
  const empty = { core: '', top: '', ph: '', cut: '', brown: '', turned: false, smell: '', colour: '' };
  const [state, setState] = useState(empty);
  const set = (part: Partial<typeof empty>): void => setState({ ...state, ...part });
  const temp = (text: string): number | null => {
    const value = readNumber(text);
    return value === null ? null : show.tempIn(value);
  };
  const save = async (): Promise<void> => {
    const saved = await write({
      kind: 'ferment',
      coreC: temp(state.core),
      topC: temp(state.top),
      ph: readNumber(state.ph),
      cut: Math.round(readNumber(state.cut) ?? 0),
      cutBrown: Math.round(readNumber(state.brown) ?? 0),
      turned: state.turned,
      smell: state.smell,
      colour: state.colour,
    });
    if (saved) setState(empty);
  };
  return (
    <div className="grid gap-4">
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-5">
        <NumberBox label="Middle" unit={unit} value={state.core} onChange={(core) => set({ core })} />
        <NumberBox label="Below the top" unit={unit} value={state.top} onChange={(top) => set({ top })} />
        <NumberBox label="pH, if known" value={state.ph} onChange={(ph) => set({ ph })} />
        <NumberBox label="Beans cut" value={state.cut} onChange={(cut) => set({ cut })} placeholder="10" />
        <NumberBox label="with a brown ring" value={state.brown} onChange={(brown) => set({ brown })} />
      </div>
      <Chips
        legend="Smell"
        options={SMELLS.map((name) => [name as string, name] as const)}
        chosen={[state.smell]}
        choose={([smell]) => set({ smell: smell ?? '' })}
      />
      <Chips
        legend="Colour"
        options={COLOURS.map((name) => [name as string, name] as const)}
        chosen={[state.colour]}
        choose={([colour]) => set({ colour: colour ?? '' })}
      />
      <Tick checked={state.turned} onChange={(turned) => set({ turned })}>
        Turned, outside in
      </Tick>
      <Refusal error={error} />
      <button
        type="button"
        className="button button-main justify-self-start"
        disabled={busy}
        onClick={() => void save()}
      >
        Save the reading
      </button>
    </div>
  );
}

function DryingEntry({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const { write, busy, error } = useRecords(lot.code);
  const [moisture, setMoisture] = useState('');
  const [kg, setKg] = useState('');
  const [raked, setRaked] = useState(true);
  const [weather, setWeather] = useState('');
  const save = async (): Promise<void> => {
    const mass = readNumber(kg);
    if (
      await write({
        kind: 'drying',
        moisturePct: readNumber(moisture),
        massG: mass === null ? null : show.gramsFromHeavy(mass),
        raked,
        weather,
      })
    ) {
      setMoisture('');
      setKg('');
    }
  };
  return (
    <div className="grid gap-4">
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
        <NumberBox label="Moisture" unit="%" value={moisture} onChange={setMoisture} />
        <NumberBox label="All of it weighs" unit={show.heavy} value={kg} onChange={setKg} />
      </div>
      <Chips
        legend="Weather"
        options={['sun', 'cloud', 'rain', 'dryer'].map((name) => [name, name] as const)}
        chosen={[weather]}
        choose={([name]) => setWeather(name ?? '')}
      />
      <Tick checked={raked} onChange={setRaked}>
        Raked
      </Tick>
      <Refusal error={error} />
      <button
        type="button"
        className="button button-main justify-self-start"
        disabled={busy}
        onClick={() => void save()}
      >
        Save the reading
      </button>
    </div>
  );
}

function DryEntry({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const { personId } = useHere();
  const { busy, error, run, fail } = useRecords(lot.code);
  const [kg, setKg] = useState('');
  const [minutes, setMinutes] = useState('');
  const save = (): void => {
    const mass = readNumber(kg);
    if (personId === null) return fail(NOBODY);
    if (mass === null || mass <= 0) return fail('Weigh the dry beans.');
    void run(() =>
      send(
        'POST',
        '/api/ledger/steps',
        {
          command: { kind: 'dry', lotId: lot.id, outG: show.gramsFromHeavy(mass), note: '' },
          personId,
          machineId: null,
          minutes: readNumber(minutes) ?? 0,
          energyKwh: 0,
        },
        newKey(),
      ),
    );
  };
  return (
    <div className="grid gap-4">
      <p>
        The lot stays {lot.code}; what it has lost is booked as water and sweatings. From then on it is an ordinary lot:
        inspect it, then sort it.
      </p>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
        <NumberBox label="Dry beans" unit={show.heavy} value={kg} onChange={setKg} />
        <NumberBox label="Hands-on minutes in all" value={minutes} onChange={setMinutes} />
      </div>
      <Caution>Bag them cool and at 6 to 8 % moisture; wetter, they mould in the sack.</Caution>
      <Refusal error={error} />
      <button type="button" className="button button-main justify-self-start" disabled={busy} onClick={save}>
        Weigh it in as dry
      </button>
    </div>
  );
}
