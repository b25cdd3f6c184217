import type { SameTestView } from '@wunsch/core/api/taste';
import { seeded } from '@wunsch/core/stats/chance';
import { isItTheSame, power, triesFor } from '@wunsch/core/taste/same';
import { readTriangles, triangles } from '@wunsch/core/taste/serving';
import { send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

interface Typed {
  a: string;
  b: string;
  tasters: string;
  /** Of the orders; null: no sheet was made yet. */
  seed: number | null;
  /** What each taster called the odd one. */
  answers: Record<string, string>;
}
const EMPTY: Typed = { a: '', b: '', tasters: '12', seed: null, answers: {} };
const MOST = 60;

/** Are two bars the same? Three samples for each taster, two of one and one of the other; who finds the odd one. */
export function SamePanel() {
  const { personId } = useHere();
  const show = useShow();
  const { data } = useApi<{ tests: SameTestView[] }>('/api/taste/same');
  const draft = useDraft<Typed>('taste.same', () => EMPTY);
  const { busy, error, run, fail } = useSave();
  const { a, b, tasters, seed, answers } = draft.value;
  const set = (next: Partial<Typed>): void => draft.set((now) => ({ ...now, ...next }));
  const n = readNumber(tasters);
  const isCount = n !== null && Number.isInteger(n) && n >= 3 && n <= MOST;
  const sheet = seed !== null && isCount ? triangles(n, seeded(seed)) : [];
  const { given, right, strange } = readTriangles(sheet, answers);
  const result = given > 0 && strange.length === 0 ? isItTheSame('triangle', right, given) : null;
  const make = (): void => {
    if (a.trim() === '' || b.trim() === '') return fail('Say which two.');
    if (!isCount) return fail(`Three to ${MOST} tasters.`);
    set({ seed: Math.floor(performance.now() * 1000) % 2_000_000_000, answers: {} });
  };
  const keep = (): void => {
    if (personId === null) return fail(NOBODY);
    const test = {
      kind: 'same',
      test: 'triangle',
      a,
      b,
      tasters: given,
      tries: given,
      right,
      note: '',
    };
    void run(() => send('POST', '/api/taste/same', { personId, test }, draft.key)).then(
      (kept) => kept && draft.clear(),
    );
  };
  return (
    <Section id="same" title="Are they the same?">
      <p className="max-w-2xl text-soft">
        Each taster gets three samples by their codes, two of one bar and one of the other, and says which is the odd
        one. Who cannot tell guesses.
      </p>
      <div className="mt-3 grid gap-3 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_7rem_auto] sm:items-end">
        <Box label="One bar" value={a} onChange={(text) => set({ a: text })} />
        <Box label="The other" value={b} onChange={(text) => set({ b: text })} />
        <NumberBox label="Tasters" value={tasters} onChange={(text) => set({ tasters: text, seed: null })} />
        <button type="button" className="button" onClick={make}>
          {seed === null ? 'Make the sheet' : 'Another sheet'}
        </button>
      </div>
      {isCount && (
        <p className="mt-2">
          With {n} tasters you would notice a difference that 1 in 2 can taste{' '}
          <strong>{Math.round(100 * power('triangle', n, 0.5))} times in 100</strong>.
          {power('triangle', n, 0.5) < 0.8 &&
            ` For 80 in 100 it wants ${triesFor('triangle', 0.5, 0.8) ?? 'very many'}.`}
        </p>
      )}
      {sheet.length > 0 && (
        <>
          <div className="mt-3 overflow-x-auto" tabIndex={0} role="region" aria-label="Sheet for the host">
            <table className="w-full min-w-[30rem]">
              <thead className="label text-left">
                <tr>
                  <th className="font-normal">Taster</th>
                  <th className="font-normal">Serve, in this order</th>
                  <th className="font-normal">The odd one is</th>
                </tr>
              </thead>
              <tbody>
                {sheet.map(({ taster, codes, bars }) => (
                  <tr key={taster} className="border-t border-rule">
                    <td className="figure">{taster + 1}</td>
                    <td>
                      {codes.map((code, i) => (
                        <span key={code} className="mr-5 whitespace-nowrap">
                          <span className="code">{code}</span>{' '}
                          <span className="text-sm text-soft">{bars[i] === 'A' ? a : b}</span>
                        </span>
                      ))}
                    </td>
                    <td className="w-32 py-1">
                      <input
                        className="entry figure"
                        inputMode="numeric"
                        aria-label={`Odd one of taster ${taster + 1}`}
                        value={answers[taster] ?? ''}
                        onChange={(event) => set({ answers: { ...answers, [taster]: event.target.value } })}
                      />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {strange.length > 0 && (
            <p role="alert" className="mt-2 font-semibold text-crimson">
              Taster {strange.map((taster) => taster + 1).join(', ')}: that is none of the three codes.
            </p>
          )}
          {result && (
            <p
              className={`mt-3 rounded-md px-4 py-3 text-lg ${result.differs ? 'bg-ripe-wash' : 'bg-leaf-wash'}`}
              role="status"
            >
              {given < sheet.length
                ? `So far, ${given} of ${sheet.length}: keep tasting before you read it. `
                : result.sentence}
            </p>
          )}
          <div className="mt-3 flex flex-wrap gap-3">
            <button
              type="button"
              className="button button-main"
              disabled={busy || result === null || given < sheet.length}
              onClick={keep}
            >
              Keep what it says
            </button>
            <button type="button" className="button button-quiet" onClick={draft.clear}>
              Throw the sheet away
            </button>
          </div>
        </>
      )}
      <Refusal error={error} />
      {data && data.tests.length > 0 && (
        <ul className="rows mt-4">
          {data.tests.slice(0, 12).map((row) => (
            <li key={row.id} className="py-2">
              <strong>
                {row.a} and {row.b}:
              </strong>{' '}
              {row.result.sentence}{' '}
              <span className="text-sm text-soft">
                {show.day(row.at)}, {row.person}
              </span>
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}
