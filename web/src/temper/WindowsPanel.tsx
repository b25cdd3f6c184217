import { useState } from 'react';
import { Link } from 'react-router';
import type { WindowsView } from '@wunsch/core/api/temper';
import type { BenchView } from '@wunsch/core/api/types';
import { CHOCOLATE_WORDS, holdOf, type Span, type Windows } from '@wunsch/core/temper/windows';
import { send, useApi } from '../parts/api';
import { SelectBox } from '../parts/choice';
import { Box, NumberBox } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
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
  const span = ({ from, to }: Span): string => `${typedNumber(show.tempIn(from))} to ${show.temp(to)}`;
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

const PARTS = ['melt', 'cool', 'work', 'hold'] as const;
const PART_WORDS = { melt: 'Melt', cool: 'Cool', work: 'Work', hold: 'Hold' } as const;
const ENDS = ['from', 'to'] as const;
type Typed = Record<(typeof PARTS)[number], Record<(typeof ENDS)[number], string>>;

/** Windows of a recipe or bar, typed over; the usual ones and what was learned are a press away. */
function OwnWindows({ here, learned, done }: { here: WindowsView; learned: Windows | null; done: () => void }) {
  const { personId } = useHere();
  const show = useShow();
  const { busy, error, run, fail } = useSave();
  const text = (c: number): string => typedNumber(Math.round(10 * show.tempIn(c)) / 10);
  const typedOf = (windows: Windows): Typed => {
    const part = ({ from, to }: Span) => ({ from: text(from), to: text(to) });
    return {
      melt: part(windows.melt),
      cool: part(windows.cool),
      work: part(windows.work),
      hold: part(holdOf(windows)),
    };
  };
  const [minutes, setMinutes] = useState(() => typedNumber(holdOf(here.windows).minutes));
  const [typed, setTyped] = useState(() => typedOf(here.windows));
  const [why, setWhy] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const unit = show.tempUnit;
  const keep = (windows: Windows | null): void => {
    if (personId === null) return fail(NOBODY);
    const path = `/api/temper/windows/${encodeURIComponent(here.code)}` as const;
    void run(() => send('POST', path, { personId, windows, why })).then((kept) => kept && done());
  };
  const save = (): void => {
    const read = (part: (typeof PARTS)[number], end: (typeof ENDS)[number]): number | null =>
      readNumber(typed[part][end]);
    const missing = PARTS.flatMap((part) =>
      ENDS.filter((end) => read(part, end) === null).map((end) => `${part} ${end}`),
    );
    const heldMin = readNumber(minutes);
    if (heldMin === null) missing.push('hold for');
    setWrong(missing.length > 0 ? `No number: ${missing.join(', ')}.` : null);
    if (missing.length > 0 || heldMin === null) return;
    const span = (part: (typeof PARTS)[number]): Span => ({
      from: show.tempOut(read(part, 'from') ?? 0),
      to: show.tempOut(read(part, 'to') ?? 0),
    });
    keep({ melt: span('melt'), cool: span('cool'), work: span('work'), hold: { ...span('hold'), minutes: heldMin } });
  };
  return (
    <div className="mt-3" role="group" aria-label={`Windows of ${here.subjectName}`}>
      <p className="text-sm text-soft">
        For all pours of {here.subjectName} from now on. Usual for {CHOCOLATE_WORDS[here.chocolate]}; the local eye and
        the temper test decide.
      </p>
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-4 lg:grid-cols-9">
        {PARTS.flatMap((part) =>
          ENDS.map((end) => (
            <NumberBox
              key={part + end}
              label={`${PART_WORDS[part]} ${end}`}
              unit={unit}
              value={typed[part][end]}
              onEnter={save}
              onChange={(next) => setTyped((now) => ({ ...now, [part]: { ...now[part], [end]: next } }))}
            />
          )),
        )}
        <NumberBox label="Hold for" unit="min" value={minutes} onEnter={save} onChange={setMinutes} />
      </div>
      <Box className="mt-3 max-w-xl" label="Why, in a word" value={why} onChange={setWhy} />
      {wrong !== null && (
        <p role="alert" className="mt-2 font-semibold text-crimson">
          {wrong}
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="button button-main" disabled={busy} onClick={save}>
          Keep these windows
        </button>
        {learned !== null && (
          <button
            type="button"
            className="button"
            onClick={() => {
              setTyped(typedOf(learned));
              setMinutes(typedNumber(holdOf(learned).minutes));
              setWhy('learned from pours that set');
            }}
          >
            Fill in what was learned
          </button>
        )}
        <button
          type="button"
          className="button button-quiet"
          onClick={() => {
            setTyped(typedOf(here.usual));
            setMinutes(typedNumber(holdOf(here.usual).minutes));
          }}
        >
          Fill in the usual
        </button>
        {here.own && (
          <button type="button" className="button button-quiet" disabled={busy} onClick={() => keep(null)}>
            Go by the usual again
          </button>
        )}
      </div>
      <Refusal error={error} />
    </div>
  );
}
