import { useState } from 'react';
import type { MouldsView, MouldView } from '@wunsch/core/api/mould';
import { send, useApi } from '../parts/api';
import { Box, NumberBox, Tick } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { TagLink } from '../parts/TagLink';
import { Caution, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

/** Moulds: cavities, grams, how many there are, when they were cleaned; and how many set at once. */
export function MouldList() {
  const { personId } = useHere();
  const show = useShow();
  const { data, mutate } = useApi('/api/mould/moulds');
  const [editing, setEditing] = useState<MouldView | 'new' | null>(null);
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
              <span className="min-w-0 flex-1">
                {mould.name}
                <span className="block text-sm text-soft">
                  {mould.cavities} × {mould.cavityG} g, {mould.owned} owned{mould.painted && ', painted'},{' '}
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
        <div className="mt-3">
          <Caution>Spirits used to clean or paint moulds burn: food grade, fresh air, no flame.</Caution>
        </div>
      </Section>
    </div>
  );
}

function MouldForm({ mould, done }: { mould: MouldView | null; done: () => void }) {
  const { personId } = useHere();
  const number = (value: number | undefined): string => (value === undefined ? '' : typedNumber(value));
  const [typed, setTyped] = useState({
    name: mould?.name ?? '',
    cavities: number(mould?.cavities),
    cavityG: number(mould?.cavityG),
    owned: number(mould?.owned),
  });
  const [painted, setPainted] = useState(mould?.painted ?? false);
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const { busy, error, run, fail } = useSave();
  const set = (key: keyof typeof typed) => (text: string) => {
    setWrong(({ [key]: _, ...rest }) => rest);
    setTyped((now) => ({ ...now, [key]: text }));
  };
  const save = (retired: boolean): void => {
    if (personId === null) return fail(NOBODY);
    const figures = {
      cavities: readNumber(typed.cavities),
      cavityG: readNumber(typed.cavityG),
      owned: readNumber(typed.owned),
    };
    const problems = Object.fromEntries(
      Object.entries(figures).flatMap(([key, value]) => (value === null ? [[key, 'is not a number']] : [])),
    );
    if (typed.name.trim() === '') problems['name'] = 'is missing';
    setWrong(problems);
    if (Object.keys(problems).length > 0) return;
    const facts = { name: typed.name, ...figures, painted, retired };
    void run(() =>
      mould === null
        ? send('POST', '/api/mould/moulds', { personId, facts })
        : send('PUT', `/api/mould/moulds/${mould.id}`, { personId, facts }),
    ).then((kept) => kept && done());
  };
  return (
    <div className="mt-3 grid gap-3" role="group" aria-label={mould === null ? 'A new mould' : mould.name}>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-[minmax(0,1fr)_7rem_7rem_7rem]">
        <Box
          className="col-span-2 sm:col-span-1"
          label="Name"
          value={typed.name}
          problem={wrong['name']}
          onChange={set('name')}
        />
        <NumberBox label="Cavities" value={typed.cavities} problem={wrong['cavities']} onChange={set('cavities')} />
        <NumberBox
          label="Each holds"
          unit="g"
          value={typed.cavityG}
          problem={wrong['cavityG']}
          onChange={set('cavityG')}
        />
        <NumberBox label="Owned" value={typed.owned} problem={wrong['owned']} onChange={set('owned')} />
      </div>
      <Tick checked={painted} onChange={setPainted}>
        Painted before it is filled
      </Tick>
      <div className="flex flex-wrap gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={() => save(false)}>
          Keep the mould
        </button>
        {mould !== null && (
          <button type="button" className="button button-quiet" disabled={busy} onClick={() => save(true)}>
            It is not used any more
          </button>
        )}
        <button type="button" className="button button-quiet" onClick={done}>
          Close
        </button>
      </div>
      <Refusal error={error} />
    </div>
  );
}

function Cabinet({ cabinet, done }: { cabinet: MouldsView['cabinet']; done: () => void }) {
  const { personId } = useHere();
  const [open, setOpen] = useState(false);
  const [moulds, setMoulds] = useState(cabinet ? String(cabinet.moulds) : '');
  const [minutes, setMinutes] = useState(cabinet ? String(cabinet.minutes) : '');
  const { busy, error, run, fail } = useSave();
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    const [m, n] = [readNumber(moulds), readNumber(minutes)];
    if (m === null || n === null) return fail('Moulds and minutes: numbers, please.');
    void run(() => send('POST', '/api/mould/cabinet', { personId, moulds: m, minutes: n })).then((kept) => {
      if (!kept) return;
      setOpen(false);
      done();
    });
  };
  return (
    <div className="mt-3">
      <p>
        {cabinet === null
          ? 'Nobody said how many moulds set at once.'
          : `${cabinet.moulds} moulds set at once, for ${cabinet.minutes} min.`}{' '}
        <button type="button" className="link min-h-11" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close' : 'Say it'}
        </button>
      </p>
      {open && (
        <div className="flex flex-wrap items-end gap-3">
          <NumberBox className="w-28" label="Moulds at once" value={moulds} onChange={setMoulds} />
          <NumberBox className="w-28" label="For" unit="min" value={minutes} onChange={setMinutes} onEnter={save} />
          <button type="button" className="button" disabled={busy} onClick={save}>
            Keep it
          </button>
        </div>
      )}
      <Refusal error={error} />
    </div>
  );
}
