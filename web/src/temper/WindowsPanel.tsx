import { useState } from 'react';
import { Link } from 'react-router';
import type { WindowsView } from '@wunsch/core/api/temper';
import type { BenchView } from '@wunsch/core/api/types';
import {
  CHOCOLATE_WORDS,
  holdOf,
  ownWindows,
  windows as windowsSchema,
  type Span,
  type Windows,
} from '@wunsch/core/temper/windows';
import { send, useApi } from '../parts/api';
import { SelectBox } from '../parts/choice';
import { typedNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';
import { NOBODY, somebody, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { Field } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';
import { typedOf } from '../record/typed';
import { Sums } from './Sums';
import { TestClock } from './TestClock';

/** What is on the bench or waits for it, with where it is melted out, cooled and worked; the sums of its school beside. */
export function WindowsPanel({ view }: { view: BenchView }) {
  const show = useShow();
  const [open, setOpen] = useState<'sums' | 'own' | null>(null);
  const [code, setCode] = useState('');
  const rows = [
    ...view.works.map((work) => ({ code: work.sources[0]?.code ?? '', massMg: work.massMg })),
    ...view.waiting.map(({ code: own, freeMg }) => ({ code: own, massMg: freeMg })),
  ].filter((row) => row.code !== '' && row.massMg > 0);
  const row = rows.find((own) => own.code === code) ?? rows[0];
  const here = useApi(row ? `/api/temper/windows/${encodeURIComponent(row.code)}` : null).data;
  const learned = useApi(row ? `/api/temper/learned/${encodeURIComponent(row.code)}` : null).data;
  if (!row || !here) return null;
  const best = learned?.settings[0];
  const hold = holdOf(here.windows);
  const span = ({ from, to }: Span): string => `${typedNumber(show.fromCelsius(from))} to ${show.temp(to)}`;
  const toggle = (what: 'sums' | 'own'): void => setOpen(open === what ? null : what);
  return (
    <section aria-label="Windows" className="mb-5 rounded-md bg-sunk px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <p className="min-w-0 flex-1 basis-96">
          <span className="code">{row.code}</span>: <strong>melt {span(here.windows.melt)}</strong>, cool{' '}
          <strong>{span(here.windows.cool)}</strong>, work <strong>{span(here.windows.work)}</strong>, hold {span(hold)}{' '}
          for {hold.minutes} min.{' '}
          <span className="text-sm text-soft">
            {here.because} {best?.sentence ?? ''}
          </span>
        </p>
        <div className="flex flex-wrap items-center gap-2">
          <button type="button" className="button" aria-expanded={open === 'sums'} onClick={() => toggle('sums')}>
            {open === 'sums' ? 'Close' : 'Work it out'}
          </button>
          <button
            type="button"
            className="button button-quiet"
            aria-expanded={open === 'own'}
            onClick={() => toggle('own')}
          >
            {here.own ? 'Its own windows' : 'Give it its own'}
          </button>
          <TestClock />
          <Link className="button button-quiet" to="/practise">
            Practise
          </Link>
        </div>
      </div>
      {open !== null && rows.length > 1 && (
        <SelectBox
          className="mt-3 w-56"
          label="Which"
          value={row.code}
          options={rows.map((one) => [one.code, `${one.code}, ${show.mass(one.massMg)}`] as const)}
          onChange={setCode}
        />
      )}
      {open === 'sums' && (
        <Sums
          key={row.code}
          massG={row.massMg / 1000}
          windows={here.windows}
          fatShare={here.fatShare}
          softShare={here.softShare}
        />
      )}
      {open === 'own' && (
        <OwnWindows key={row.code} here={here} learned={best?.windows ?? null} done={() => setOpen(null)} />
      )}
    </section>
  );
}

const PARTS = [
  ['melt', 'Melt'],
  ['cool', 'Cool'],
  ['work', 'Work'],
  ['hold', 'Hold'],
] as const;
const ENDS = ['from', 'to'] as const;

/** Windows of a recipe or bar, typed over; the usual ones and what was learned are a press away. */
function OwnWindows({ here, learned, done }: { here: WindowsView; learned: Windows | null; done: () => void }) {
  const { personId } = useHere();
  const back = useSave();
  const whole = (windows: Windows): Windows => ({ ...windows, hold: holdOf(windows) });
  const record = useRecordForm(`windows.${here.code}`, ownWindows, () => ({ windows: whole(here.windows) }));
  const path = `/api/temper/windows/${encodeURIComponent(here.code)}` as const;
  const fillIn = (windows: Windows, why?: string): void => {
    const { form, units } = record;
    const how = { shouldDirty: true, shouldValidate: form.formState.isSubmitted };
    form.setValue('windows', typedOf(windowsSchema, whole(windows), units), how);
    if (why !== undefined) form.setValue('why', why, how);
  };
  const byUsual = (): void => {
    if (personId === null) return back.fail(NOBODY);
    const why = (record.form.getValues('why') as string | undefined) ?? '';
    void back
      .run(() => send('POST', path, { personId, windows: null, why }))
      .then((kept) => {
        if (!kept) return;
        record.leave();
        done();
      });
  };
  return (
    <div className="mt-3" role="group" aria-label={`Windows of ${here.subjectName}`}>
      <p className="text-sm text-soft">
        For all pours of {here.subjectName} from now on. Usual for {CHOCOLATE_WORDS[here.chocolate]}; the local eye and
        the temper test decide.
      </p>
      <RecordSheet
        record={record}
        save={(value, key) => send('POST', path, { personId: somebody(personId), ...value }, key)}
        submit="Keep these windows"
        leave="Leave it"
        done={done}
        className="mt-2"
      >
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-4 lg:grid-cols-9">
          {PARTS.flatMap(([part, word]) =>
            ENDS.map((end) => <Field key={part + end} at={`windows.${part}.${end}`} label={`${word} ${end}`} />),
          )}
          <Field at="windows.hold.minutes" />
        </div>
        <Field className="mt-3 max-w-xl" at="why" />
        <div className="mt-3 flex flex-wrap gap-2">
          {learned !== null && (
            <button type="button" className="button" onClick={() => fillIn(learned, 'learned from pours that set')}>
              Fill in what was learned
            </button>
          )}
          <button type="button" className="button button-quiet" onClick={() => fillIn(here.usual)}>
            Fill in the usual
          </button>
          {here.own && (
            <button type="button" className="button button-quiet" disabled={back.busy} onClick={byUsual}>
              Go by the usual again
            </button>
          )}
        </div>
      </RecordSheet>
      <Refusal error={back.error} />
    </div>
  );
}
