import { useState } from 'react';
import type { MouldsView, MouldView } from '@wunsch/core/api/mould';
import { cabinet, mouldFacts, type MouldFacts } from '@wunsch/core/mould/records';
import { send, useApi } from '../parts/api';
import { hasDraft } from '../parts/draft';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, somebody, useSave } from '../parts/save';
import { TagLink } from '../parts/TagLink';
import { useHere, useShow } from '../parts/workshop';
import { Field } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';

/** Moulds: cavities, grams, how many there are, when they were cleaned; and how many set at once. */
export function MouldList() {
  const { personId } = useHere();
  const show = useShow();
  const { data, mutate } = useApi('/api/mould/moulds');
  const [editing, setEditing] = useState<MouldView | 'new' | null>(() => (hasDraft('record.mould.new') ? 'new' : null));
  const { busy, error, run, fail } = useSave();
  if (!data) return null;
  const clean = (mould: MouldView): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      await send('POST', `/api/mould/moulds/${mould.id}/cleaned`, { personId, how: 'washed warm, dried, polished' });
      await mutate();
    });
  };
  return (
    <div className="mt-10">
      <Section
        id="moulds"
        title="Moulds"
        aside={
          <button type="button" className="button" onClick={() => setEditing('new')}>
            Add a mould
          </button>
        }
      >
        {data.moulds.length === 0 && editing === null && (
          <p className="text-soft">
            None described yet. With cavities and grams the bench says how many bars, fills and runs a bowl gives.
          </p>
        )}
        <ul className="rows">
          {data.moulds.map((mould) => (
            <li key={mould.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
              <span className="min-w-0 flex-1 basis-60">
                {mould.name}
                <span className="block text-sm text-soft">
                  {mould.cavities} × {show.piece(mould.cavityG)}, {mould.owned} owned{mould.painted && ', painted'},{' '}
                  {mould.cleanedAt === null ? 'never said to be cleaned' : `cleaned ${show.day(mould.cleanedAt)}`}
                </span>
              </span>
              <button type="button" className="button button-quiet" disabled={busy} onClick={() => clean(mould)}>
                Cleaned and polished
              </button>
              <button type="button" className="button button-quiet" onClick={() => setEditing(mould)}>
                Change
              </button>
              <TagLink code={mould.id} words="Label" />
            </li>
          ))}
        </ul>
        {editing !== null && (
          <MouldForm
            key={editing === 'new' ? 'new' : editing.id}
            mould={editing === 'new' ? null : editing}
            done={() => {
              setEditing(null);
              void mutate();
            }}
          />
        )}
        <Cabinet cabinet={data.cabinet} done={() => void mutate()} />
        <Refusal error={error} />
      </Section>
    </div>
  );
}

function MouldForm({ mould, done }: { mould: MouldView | null; done: () => void }) {
  const { personId } = useHere();
  const record = useRecordForm(`mould.${mould?.id ?? 'new'}`, mouldFacts, () => mould ?? { painted: false });
  const save = (facts: MouldFacts, key: string): Promise<unknown> =>
    mould === null
      ? send('POST', '/api/mould/moulds', { personId: somebody(personId), facts }, key)
      : send('PUT', `/api/mould/moulds/${mould.id}`, { personId: somebody(personId), facts }, key);
  return (
    <div className="mt-3" role="group" aria-label={mould === null ? 'A new mould' : mould.name}>
      <RecordSheet record={record} save={save} submit="Keep the mould" leave="Close" done={done}>
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-[minmax(0,1fr)_7rem_7rem_7rem]">
          <Field className="col-span-2 sm:col-span-1" at="name" />
          <Field at="cavities" />
          <Field at="cavityG" />
          <Field at="owned" />
        </div>
        <Field at="painted" />
        {mould !== null && (
          <button
            type="button"
            className="button button-quiet justify-self-start"
            disabled={record.busy}
            onClick={() =>
              void record.submit((facts, key) => save({ ...facts, retired: true }, key)).then((kept) => kept && done())
            }
          >
            It is not used any more
          </button>
        )}
      </RecordSheet>
    </div>
  );
}

function Cabinet({ cabinet: known, done }: { cabinet: MouldsView['cabinet']; done: () => void }) {
  const [open, setOpen] = useState(hasDraft('record.cabinet'));
  return (
    <div className="mt-3">
      <p>
        {known === null
          ? 'Nobody said how many moulds set at once.'
          : `${known.moulds} moulds set at once, for ${known.minutes} min.`}{' '}
        <button type="button" className="link min-h-11" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close' : 'Say it'}
        </button>
      </p>
      {open && (
        <CabinetForm
          known={known}
          done={() => {
            setOpen(false);
            done();
          }}
        />
      )}
    </div>
  );
}

function CabinetForm({ known, done }: { known: MouldsView['cabinet']; done: () => void }) {
  const { personId } = useHere();
  const record = useRecordForm('cabinet', cabinet, () => known ?? {});
  return (
    <RecordSheet
      record={record}
      save={(said, key) => send('POST', '/api/mould/cabinet', { personId: somebody(personId), ...said }, key)}
      submit="Keep it"
      done={done}
      className="grid max-w-md grid-cols-2 gap-3"
    >
      <Field at="moulds" />
      <Field at="minutes" />
    </RecordSheet>
  );
}
