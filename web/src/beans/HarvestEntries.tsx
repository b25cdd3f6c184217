import { useState } from 'react';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { dryingEntry, fermentEntry } from '@wunsch/core/beans/records';
import { send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Chips, NumberBox } from '../parts/fields';
import { readNumbers } from '../parts/number';
import { Caution, Refusal } from '../parts/pieces';
import { NOBODY } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { Field } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';
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
  const { enter } = useRecords(lot.code);
  const at = useDraft(`ferment-at.${lot.code}`, () => '');
  const record = useRecordForm(`ferment.${lot.code}`, fermentEntry, () => ({}));
  return (
    <RecordSheet
      record={record}
      save={(value, key) => enter(value, key, show.sent(at.value))}
      done={at.clear}
      submit="Save the reading"
    >
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-5">
        <Field at="coreC" />
        <Field at="topC" />
        <Field at="ph" />
        <Field at="cut" />
        <Field at="cutBrown" />
      </div>
      <Field at="smell" />
      <Field at="colour" />
      <div className="flex flex-wrap items-end gap-6">
        <Field at="turned" />
        <When value={at.value} onChange={(text) => at.set(() => text)} />
      </div>
    </RecordSheet>
  );
}

function DryingEntry({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const { enter } = useRecords(lot.code);
  const at = useDraft(`drying-at.${lot.code}`, () => '');
  const record = useRecordForm(`drying.${lot.code}`, dryingEntry, () => ({ raked: true }));
  return (
    <RecordSheet
      record={record}
      save={(value, key) => enter(value, key, show.sent(at.value))}
      done={at.clear}
      submit="Save the reading"
    >
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
        <Field at="moisturePct" />
        <Field at="massG" />
        <When value={at.value} onChange={(text) => at.set(() => text)} />
      </div>
      <Field at="weather" />
      <Field at="raked" />
    </RecordSheet>
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
