import { seeded } from '@wunsch/core/stats/chance';
import { isItTheSame, power, SAME_TESTS, triesFor, type SameTest } from '@wunsch/core/taste/same';
import { readRounds, sameRounds, type SameRound } from '@wunsch/core/taste/serving';
import { send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber, someSeed } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

interface Typed {
  test: SameTest;
  a: string;
  b: string;
  /** What one of a pair is expected to have more of. */
  more: string;
  tasters: string;
  rounds: string;
  /** Of the orders; null: no sheet was made yet. */
  seed: number | null;
  /** What was answered, by place in the sheet. */
  answers: Record<string, string>;
}
const EMPTY: Typed = { test: 'triangle', a: '', b: '', more: '', tasters: '12', rounds: '1', seed: null, answers: {} };
const MOST = 60;
const MOST_ROUNDS = 4;

const NAMES: Readonly<Record<SameTest, string>> = { triangle: 'Triangle', tetrad: 'Tetrad', paired: 'Pair' };
const ASKED: Readonly<Record<SameTest, string>> = {
  triangle: 'which is the odd one',
  tetrad: 'which of the others belongs to the first',
  paired: 'which has more of it',
};
const HOW: Readonly<Record<SameTest, string>> = {
  triangle:
    'Each taster gets three samples by their codes, two of one bar and one of the other, and says which is the odd one.',
  tetrad:
    'Each taster gets four samples by their codes, two of each bar, and says which of the last three belongs to the first.',
  paired:
    'Each taster gets both by their codes and says which has more of what you name: the other one is expected to.',
};

/** Are two bars the same? Samples by codes for each taster, in fair orders; what their answers say, exactly. */
export function SamePanel() {
  const { personId } = useHere();
  const show = useShow();
  const { data } = useApi('/api/taste/same');
  const draft = useDraft<Typed>('taste.same', () => EMPTY);
  const { busy, error, run, fail } = useSave();
  const { test, a, b, more, tasters, rounds, seed, answers } = { ...EMPTY, ...draft.value };
  const set = (next: Partial<Typed>): void => draft.set((now) => ({ ...now, ...next }));
  const n = readNumber(tasters);
  const times = readNumber(rounds);
  const isCount = n !== null && Number.isInteger(n) && n >= 3 && n <= MOST;
  const isTimes = times !== null && Number.isInteger(times) && times >= 1 && times <= MOST_ROUNDS;
  const fits = isCount && isTimes;
  const sheet = seed !== null && fits ? sameRounds(test, n, times, seeded(seed)) : [];
  const read = readRounds(test, sheet, answers);
  const { given, right, strange } = read;
  const result = given > 0 && strange.length === 0 ? isItTheSame(test, right, given, read.tasters) : null;
  const tries = fits ? n * times : 0;
  const make = (): void => {
    if (a.trim() === '' || b.trim() === '') return fail('Say which two.');
    if (test === 'paired' && more.trim() === '') return fail('Say what the other is expected to have more of.');
    if (!isCount) return fail(`Three to ${MOST} tasters.`);
    if (!isTimes) return fail(`One to ${MOST_ROUNDS} rounds: tongues tire.`);
    set({ seed: someSeed(), answers: {} });
  };
  const keep = (): void => {
    if (personId === null) return fail(NOBODY);
    const kept = {
      kind: 'same',
      test,
      a,
      b,
      tasters: read.tasters,
      tries: given,
      right,
      note: test === 'paired' ? `More ${more}` : '',
    };
    void run(() => send('POST', '/api/taste/same', { personId, test: kept }, draft.key)).then(
      (done) => done && draft.clear(),
    );
  };
  const label = (row: SameRound): string =>
    `${test === 'triangle' ? 'Odd one' : 'Answer'} of taster ${row.taster + 1}${times === 1 ? '' : `, round ${row.round + 1}`}`;
  return (
    <Section id="same" title="Are they the same?">
      <Chips
        legend={<span className="sr-only">Which test</span>}
        options={SAME_TESTS.map((row) => [row, NAMES[row]] as const)}
        chosen={[test]}
        choose={([next = 'triangle']) => set({ test: next, seed: null, answers: {} })}
      />
      <p className="mt-2 max-w-2xl text-soft">{HOW[test]} Who cannot tell guesses.</p>
      <div className="mt-3 grid gap-3 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_6rem_6rem_auto] sm:items-end">
        <Box label="One bar" value={a} onChange={(text) => set({ a: text })} />
        <Box label="The other" value={b} onChange={(text) => set({ b: text })} />
        <NumberBox label="Tasters" value={tasters} onChange={(text) => set({ tasters: text, seed: null })} />
        <NumberBox label="Rounds" value={rounds} onChange={(text) => set({ rounds: text, seed: null })} />
        <button type="button" className="button" onClick={make}>
          {seed === null ? 'Make the sheet' : 'Another sheet'}
        </button>
      </div>
      {test === 'paired' && (
        <Box
          className="mt-3 max-w-md"
          label="The other is expected to have more"
          placeholder="sourness"
          value={more}
          onChange={(text) => set({ more: text })}
        />
      )}
      {fits && (
        <p className="mt-2">
          With {n} tasters{times > 1 ? `, ${times} rounds each,` : ''} you would notice a difference that 1 in 2 can
          taste <strong>{Math.round(100 * power(test, tries, 0.5))} times in 100</strong>.
          {power(test, tries, 0.5) < 0.8 &&
            ` For 80 in 100 it wants ${triesFor(test, 0.5, 0.8) ?? 'very many'}${times > 1 ? ' answers' : ''}.`}
          {times > 1 && ' More rounds of the same people speak of these people, not of all.'}
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
                  <th className="font-normal">Says {ASKED[test]}</th>
                </tr>
              </thead>
              <tbody>
                {sheet.map((row, i) => (
                  <tr key={i} className="border-t border-rule">
                    <td className="figure">
                      {row.taster + 1}
                      {times !== 1 && <span className="text-sm text-soft">, round {row.round + 1}</span>}
                    </td>
                    <td>
                      {row.codes.map((code, j) => (
                        <span key={code} className="mr-5 whitespace-nowrap">
                          <span className="code">{code}</span>{' '}
                          <span className="text-sm text-soft">{row.bars[j] === 'A' ? a : b}</span>
                        </span>
                      ))}
                    </td>
                    <td className="w-32 py-1">
                      <input
                        className="entry figure"
                        inputMode="numeric"
                        aria-label={label(row)}
                        value={answers[i] ?? ''}
                        onChange={(event) => set({ answers: { ...answers, [i]: event.target.value } })}
                      />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {strange.length > 0 && (
            <p role="alert" className="mt-2 font-semibold text-crimson">
              Taster {strange.map((i) => (sheet[i]?.taster ?? 0) + 1).join(', ')}: that is none of the{' '}
              {test === 'paired' ? 'two' : 'three'} codes{test === 'tetrad' && ' after the first'}.
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
                {NAMES[row.test].toLowerCase()}
                {row.note !== '' && `, ${row.note.toLowerCase()}`}; {show.day(row.at)}, {row.person}
              </span>
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}
