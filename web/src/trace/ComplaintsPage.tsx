import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { ComplaintView } from '@wunsch/core/api/recall';
import { COMPLAINTS, COMPLAINT_WORDS, type ComplaintKind } from '@wunsch/core/trace/records';
import { send, useApi } from '../parts/api';
import { useDraft, useKept } from '../parts/draft';
import { Box, Chips, NumberBox, Tick } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Photos } from '../parts/Photos';
import { Caution, Code, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { SharedPanel } from './SharedPanel';

const KINDS = COMPLAINTS.map((kind) => [kind, COMPLAINT_WORDS[kind]] as const);

/** What buyers say is wrong, what that has in common, and taking it back. */
export function ComplaintsPage() {
  const complaints = useApi('/api/trace/complaints');
  const recalls = useApi('/api/trace/recalls').data?.recalls ?? [];
  const [search] = useSearchParams();
  const [chosen, setChosen] = useState<string[]>([]);
  const [typed, setTyped] = useState(search.get('codes') ?? '');
  const show = useShow();
  if (!complaints.data) return <Loading error={complaints.error} />;
  const rows = complaints.data.complaints;
  const codes = [
    ...rows.filter(({ id }) => chosen.includes(id)).map(({ code }) => code),
    ...typed.split(/[\s,;]+/).filter((code) => code !== ''),
  ];
  return (
    <div className="grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div className="min-w-0">
        <h1 className="text-4xl">Complaints and recalls</h1>
        <p className="mt-1 text-lg text-soft">
          Tick what belongs together, or type the codes: the book says what they share, and who else has it.
        </p>
        <div className="mt-6">
          <Box label="Codes on bars, tubs, sacks" value={typed} onChange={setTyped} placeholder="B055-1, B056-1" />
        </div>
        {codes.length > 0 && <SharedPanel key={codes.join(' ')} codes={codes} />}
        <Section
          id="complaints"
          title="Complaints"
          aside={`${rows.filter(({ answer }) => answer === null).length} open`}
        >
          {rows.length === 0 ? (
            <p className="text-soft">None. What a buyer says is wrong is written down here, at the code on the bar.</p>
          ) : (
            <ul className="rows">
              {rows.map((row) => (
                <Complaint
                  key={row.id}
                  row={row}
                  on={chosen.includes(row.id)}
                  toggle={(on) => setChosen((now) => (on ? [...now, row.id] : now.filter((id) => id !== row.id)))}
                />
              ))}
            </ul>
          )}
        </Section>
        <div className="mt-8">
          <NewComplaint />
        </div>
      </div>
      <aside aria-label="Recalls">
        <RecallForm codes={codes} />
        <h2 className="mt-8 mb-2 text-xl">Recalls</h2>
        {recalls.length === 0 ? (
          <p className="text-soft">None. Practise one before you need it.</p>
        ) : (
          <ul className="rows">
            {recalls.map((row) => (
              <li key={row.id} className="py-2">
                <Link className="link" to={`/recall/${row.id}`}>
                  {row.codes.slice(0, 4).join(', ')}
                  {row.codes.length > 4 && ` and ${row.codes.length - 4} more`}
                </Link>
                <span className="block text-sm text-soft">
                  {row.mock && 'for practice, '}
                  {show.moment(row.at)}, {row.person}
                  {row.endedAt !== null && `, ended ${show.day(row.endedAt)}`}
                </span>
              </li>
            ))}
          </ul>
        )}
      </aside>
    </div>
  );
}

function Complaint({ row, on, toggle }: { row: ComplaintView; on: boolean; toggle: (on: boolean) => void }) {
  const { personId } = useHere();
  const show = useShow();
  const [word, setWord, forget] = useKept(`complaint.${row.id}.answer`, '');
  const { busy, error, run, fail } = useSave();
  const answer = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `/api/trace/complaints/${row.id}/answer`, { personId, word })).then(
      (kept) => kept && forget(),
    );
  };
  return (
    <li className="py-3">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <Tick checked={on} onChange={toggle}>
          <span className="font-semibold">{COMPLAINT_WORDS[row.what]}</span>
        </Tick>
        <Code code={row.code} />
        <span className="text-sm text-soft">
          {row.name}
          {row.pieces !== null && `, ${row.pieces} bars`}
          {row.from !== '' && `, ${row.from}`}, {show.day(row.at)}, {row.person}
        </span>
      </div>
      {row.note !== '' && <p className="mt-1">“{row.note}”</p>}
      {row.answer !== null ? (
        <p className="mt-1 text-sm text-soft">Answered: {row.answer}</p>
      ) : (
        <details className="mt-1">
          <summary className="inline-flex min-h-11 cursor-pointer items-center text-sm underline">
            Answer it, or add a photo
          </summary>
          <div className="flex flex-wrap items-end gap-3">
            <Box
              className="min-w-60 flex-1"
              label="What was answered"
              value={word}
              onChange={setWord}
              onEnter={answer}
            />
            <button type="button" className="button" disabled={busy} onClick={answer}>
              Keep the answer
            </button>
          </div>
        </details>
      )}
      <div className="mt-1 flex flex-wrap gap-3">
        <Photos subject={`complaint:${row.id}`} photos={row.photos} caption={COMPLAINT_WORDS[row.what]} words="Photo" />
      </div>
      <Refusal error={error} />
    </li>
  );
}

interface Complained {
  what: ComplaintKind | null;
  code: string;
  from: string;
  pieces: string;
  note: string;
}

/** What somebody says of a bar; half typed it survives a reload. */
function NewComplaint() {
  const { personId } = useHere();
  const [search] = useSearchParams();
  const asked = search.get('code') ?? '';
  const draft = useDraft<Complained>(`complaint.${asked}`, () => ({
    what: null,
    code: asked,
    from: '',
    pieces: '',
    note: '',
  }));
  const { what, ...typed } = draft.value;
  const [wrong, setWrong] = useState<Partial<Record<keyof typeof typed, string>>>({});
  const { busy, error, run, fail } = useSave();
  const set = (key: keyof typeof typed) => (text: string) => {
    setWrong(({ [key]: _, ...rest }) => rest);
    draft.set((now) => ({ ...now, [key]: text }));
  };
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    if (what === null) return fail('Choose what is wrong.');
    const pieces = typed.pieces.trim() === '' ? null : readNumber(typed.pieces);
    const problems = {
      ...(typed.code.trim() === '' ? { code: 'is missing' } : {}),
      ...(typed.pieces.trim() !== '' && pieces === null ? { pieces: 'is not a number' } : {}),
    };
    setWrong(problems);
    if (Object.keys(problems).length > 0) return;
    const { code, from, note } = typed;
    const body = { personId, code, what, from, pieces, note };
    void run(() => send('POST', '/api/trace/complaints', body, draft.key)).then((kept) => kept && draft.clear());
  };
  return (
    <Section id="new-complaint" title="Write one down">
      <div className="grid gap-4">
        <div className="grid gap-4 sm:grid-cols-[12rem_minmax(0,1fr)_8rem]">
          <Box label="Code on the bar" value={typed.code} problem={wrong.code} onChange={set('code')} />
          <Box label="Who says so" value={typed.from} onChange={set('from')} />
          <NumberBox label="Bars" value={typed.pieces} problem={wrong.pieces} onChange={set('pieces')} />
        </div>
        <Chips
          legend="What is wrong"
          options={KINDS}
          chosen={what === null ? [] : [what]}
          choose={([next]) => draft.set((now) => ({ ...now, what: next ?? null }))}
        />
        <Box label="In their words" value={typed.note} onChange={set('note')} />
        <div>
          <button type="button" className="button button-main" disabled={busy} onClick={save}>
            Keep the complaint
          </button>
        </div>
        <Refusal error={error} />
        <Caution>
          Somebody reacted, or something sharp was in it: stop selling at once, and ask the food authority. It decides
          what has to be told to whom.
        </Caution>
      </div>
    </Section>
  );
}

/** Takes goods back, or practises it. */
export function RecallForm({ codes }: { codes: readonly string[] }) {
  const { personId } = useHere();
  const go = useNavigate();
  const [why, setWhy, forget] = useKept('recall.why', '');
  const [mock, setMock] = useState(true);
  const { busy, error, run, fail } = useSave();
  const begin = (): void => {
    if (personId === null) return fail(NOBODY);
    if (codes.length === 0) return fail('Name the codes that are recalled, or tick complaints.');
    void run(async () => {
      const body = { personId, codes: [...new Set(codes)], why, mock };
      const { data } = await send('POST', '/api/trace/recalls', body);
      forget();
      void go(`/recall/${data.id}`);
    });
  };
  return (
    <section aria-label="Recall" className="rounded-md bg-sunk px-4 py-3">
      <h2 className="text-xl">Recall</h2>
      <p className="mt-1 text-sm">
        {codes.length === 0
          ? 'Of what is ticked or typed, and of everything that has something of it.'
          : `${[...new Set(codes)].join(', ')}, and everything that has something of it.`}
      </p>
      <Box className="mt-3" label="Why" value={why} onChange={setWhy} />
      <div className="mt-2">
        <Tick checked={mock} onChange={setMock}>
          For practice: nothing is blocked
        </Tick>
      </div>
      <button
        type="button"
        className={`mt-2 ${mock ? 'button' : 'button button-main'}`}
        disabled={busy || codes.length === 0}
        onClick={begin}
      >
        {mock ? 'Practise the recall' : 'Recall them: block what is here'}
      </button>
      <Refusal error={error} />
    </section>
  );
}
