import { useState } from 'react';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { COLOURS, SMELLS } from '@wunsch/core/beans/words';
import { send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Chips, NumberBox, Tick } from '../parts/fields';
import { readNumbers } from '../parts/number';
import { Caution, Refusal } from '../parts/pieces';
import { NOBODY } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { useRecords } from './records';
import { When } from '../parts/dates';

/** What is written down while wet beans become dry ones: the heap, the drying, the last weighing. */
export function HarvestEntries({ lot, dryingBegun }: { lot: BeanLotView; dryingBegun: boolean }) {
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
      <div className="mt-4 grid gap-4">
        {which === 'ferment' && <FermentEntry lot={lot} />}
        {which === 'drying' && <DryingEntry lot={lot} />}
        {which === 'dry' && <DryEntry lot={lot} />}
      </div>
    </div>
  );
}

function SaveButton({
  error,
  busy,
  save,
  children,
}: {
  error: unknown;
  busy: boolean;
  save: () => void;
  children: string;
}) {
  return (
    <>
      <Refusal error={error} />
      <button type="button" className="button button-main justify-self-start" disabled={busy} onClick={save}>
        {children}
      </button>
    </>
  );
}

function FermentEntry({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const unit = show.temp(0).slice(-2);
  const { write, busy, error, fail } = useRecords(lot.code);
  const draft = useDraft(`ferment.${lot.code}`, () => ({
    figures: { core: '', top: '', ph: '', cut: '', brown: '' },
    turned: false,
    smell: '',
    colour: '',
    at: '',
  }));
  const { figures, turned, smell, colour, at } = draft.value;
  const { values, wrong } = readNumbers(figures);
  const set = (part: Partial<typeof draft.value>): void => draft.set((before) => ({ ...before, ...part }));
  const figure = (name: keyof typeof figures, label: string, extra: { unit?: string; placeholder?: string } = {}) => (
    <NumberBox
      label={label}
      value={figures[name]}
      onChange={(text) => set({ figures: { ...figures, [name]: text } })}
      problem={wrong[name]}
      {...extra}
    />
  );
  const warm = (value: number | null): number | null => (value === null ? null : show.tempIn(value));
  const save = async (): Promise<void> => {
    if (Object.keys(wrong).length > 0) return;
    const said = Object.values(values).some((value) => value !== null) || turned || smell !== '' || colour !== '';
    if (!said) return fail('Nothing is filled in yet: a temperature, a smell, a cut or a turning.');
    const { core, top, ph, cut, brown } = values;
    const record = {
      kind: 'ferment',
      coreC: warm(core),
      topC: warm(top),
      ph,
      cut: cut ?? 0,
      cutBrown: brown ?? 0,
      turned,
      smell,
      colour,
    } as const;
    if (await write(record, draft.key, show.sent(at))) draft.clear();
  };
  return (
    <>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-5">
        {figure('core', 'Middle', { unit })}
        {figure('top', 'Below the top', { unit })}
        {figure('ph', 'pH, if known')}
        {figure('cut', 'Beans cut', { placeholder: '10' })}
        {figure('brown', 'with a brown ring')}
      </div>
      <Chips
        legend="Smell"
        options={SMELLS.map((name) => [name as string, name] as const)}
        chosen={[smell]}
        choose={([name]) => set({ smell: name ?? '' })}
      />
      <Chips
        legend="Colour"
        options={COLOURS.map((name) => [name as string, name] as const)}
        chosen={[colour]}
        choose={([name]) => set({ colour: name ?? '' })}
      />
      <div className="flex flex-wrap items-end gap-6">
        <Tick checked={turned} onChange={(on) => set({ turned: on })}>
          Turned, outside in
        </Tick>
        <When value={at} onChange={(text) => set({ at: text })} />
      </div>
      <SaveButton error={error} busy={busy} save={() => void save()}>
        Save the reading
      </SaveButton>
    </>
  );
}

function DryingEntry({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const { write, busy, error, fail } = useRecords(lot.code);
  const draft = useDraft(`drying.${lot.code}`, () => ({
    figures: { moisture: '', mass: '' },
    raked: true,
    weather: '',
    at: '',
  }));
  const { figures, raked, weather, at } = draft.value;
  const { values, wrong } = readNumbers(figures);
  const set = (part: Partial<typeof draft.value>): void => draft.set((before) => ({ ...before, ...part }));
  const save = async (): Promise<void> => {
    if (Object.keys(wrong).length > 0) return;
    if (values.moisture === null && values.mass === null && !raked)
      return fail('Nothing is filled in yet: a moisture, a weight or a raking.');
    const massG = values.mass === null ? null : show.gramsFromHeavy(values.mass);
    const record = { kind: 'drying', moisturePct: values.moisture, massG, raked, weather } as const;
    if (await write(record, draft.key, show.sent(at))) draft.clear();
  };
  return (
    <>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
        <NumberBox
          label="Moisture"
          unit="%"
          value={figures.moisture}
          onChange={(moisture) => set({ figures: { ...figures, moisture } })}
          problem={wrong.moisture}
        />
        <NumberBox
          label="All of it weighs"
          unit={show.heavy}
          value={figures.mass}
          onChange={(mass) => set({ figures: { ...figures, mass } })}
          problem={wrong.mass}
        />
        <When value={at} onChange={(text) => set({ at: text })} />
      </div>
      <Chips
        legend="Weather"
        options={['sun', 'cloud', 'rain', 'dryer'].map((name) => [name, name] as const)}
        chosen={[weather]}
        choose={([name]) => set({ weather: name ?? '' })}
      />
      <Tick checked={raked} onChange={(on) => set({ raked: on })}>
        Raked
      </Tick>
      <SaveButton error={error} busy={busy} save={() => void save()}>
        Save the reading
      </SaveButton>
    </>
  );
}

function DryEntry({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const { personId } = useHere();
  const { busy, error, run, fail } = useRecords(lot.code);
  const draft = useDraft(`dry.${lot.code}`, () => ({ mass: '', minutes: '' }));
  const { values, wrong } = readNumbers(draft.value);
  const set = (part: Partial<typeof draft.value>): void => draft.set((before) => ({ ...before, ...part }));
  const save = async (): Promise<void> => {
    if (Object.keys(wrong).length > 0) return;
    const { mass, minutes } = values;
    if (personId === null) return fail(NOBODY);
    if (mass === null || mass <= 0) return fail('Weigh the dry beans.');
    const command = { kind: 'dry', lotId: lot.id, outG: show.gramsFromHeavy(mass), note: '' };
    const entry = { command, personId, machineId: null, minutes: minutes ?? 0, energyKwh: 0 };
    if (await run(() => send('POST', '/api/ledger/steps', entry, draft.key))) draft.clear();
  };
  return (
    <>
      <p>
        The lot stays {lot.code}; what it has lost is booked as water and sweatings. From then on it is an ordinary lot:
        inspect it, then sort it.
      </p>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
        <NumberBox
          label="Dry beans"
          unit={show.heavy}
          value={draft.value.mass}
          onChange={(mass) => set({ mass })}
          problem={wrong.mass}
        />
        <NumberBox
          label="Hands-on minutes in all"
          value={draft.value.minutes}
          onChange={(minutes) => set({ minutes })}
          problem={wrong.minutes}
        />
      </div>
      <Caution>Bag them cool and at 6 to 8 % moisture; wetter, they mould in the sack.</Caution>
      <SaveButton error={error} busy={busy} save={() => void save()}>
        Weigh it in as dry
      </SaveButton>
    </>
  );
}
