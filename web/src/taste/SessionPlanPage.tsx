import { Link, useNavigate, useSearchParams } from 'react-router';
import type { SubjectView } from '@wunsch/core/api/taste';
import { MOST_AT_ONCE } from '@wunsch/core/taste/records';
import { fairTasters } from '@wunsch/core/taste/serving';
import { send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, NumberBox, Tick } from '../parts/fields';
import { readNumber, someSeed } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';
import { keyOf, SubjectPicker } from './SubjectPicker';
import { TasteHead } from './TasteNav';

interface Plan {
  name: string;
  question: string;
  tasters: string;
  scales: boolean;
  bars: { subject: SubjectView; name: string }[];
}
const EMPTY: Plan = { name: '', question: 'Which would you rather eat again?', tasters: '8', scales: true, bars: [] };
/** Bars that a tongue compares well at one sitting. */
const SENSIBLE = 5;

/** A blind session: which bars, which question, how many taste. */
export function SessionPlanPage() {
  const { personId } = useHere();
  const navigate = useNavigate();
  const [query] = useSearchParams();
  const trialId = query.get('trial');
  const draft = useDraft<Plan>(`session.${trialId ?? 'new'}`, () => EMPTY);
  const { busy, error, run, fail } = useSave();
  const { name, question, tasters, scales, bars } = draft.value;
  const set = (next: Partial<Plan>): void => draft.set((now) => ({ ...now, ...next }));
  const toggle = (subject: SubjectView): void => {
    if (bars.some((row) => keyOf(row.subject) === keyOf(subject)))
      return set({ bars: bars.filter((row) => keyOf(row.subject) !== keyOf(subject)) });
    if (bars.length >= MOST_AT_ONCE) return fail(`${MOST_AT_ONCE} at the most: nobody tastes more well.`);
    // Two of one name are told apart by their codes.
    const own = bars.some((row) => row.name === subject.name)
      ? `${subject.name} ${subject.batchCode ?? subject.code ?? ''}`.trim()
      : subject.name;
    set({ bars: [...bars, { subject, name: own.slice(0, 120) }] });
  };
  const n = readNumber(tasters);
  const wrong = n !== null && (n < 1 || !Number.isInteger(n)) ? 'is no number of people' : undefined;
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    if (n === null || wrong !== undefined) return fail('Say how many taste.');
    const session = {
      name: name.trim() === '' ? bars.map((row) => row.name).join(' and ') : name,
      question,
      tasters: n,
      scales,
      trialId,
      seed: someSeed(),
      bars: bars.map(({ subject, name: own }) => ({ subject: subject.subject, name: own })),
    };
    void run(async () => {
      const { data } = await send(
        'POST',
        '/api/taste/sessions',
        { personId, session: { ...session, name: session.name.slice(0, 120) } },
        draft.key,
      );
      draft.clear();
      void navigate(`/session/${data.id}`);
    });
  };
  return (
    <div className="max-w-4xl">
      <TasteHead title="A blind session">
        Bars by three-digit codes, in orders that are fair to each; scores are closed until all have tasted.
      </TasteHead>
      <Section title="Which bars" id="bars" aside={`${bars.length} of ${MOST_AT_ONCE} at the most`}>
        {bars.length > 0 && (
          <ul className="rows mb-3">
            {bars.map(({ subject, name: own }, i) => (
              <li key={keyOf(subject)} className="flex items-end gap-3 py-1">
                <Box
                  className="flex-1"
                  label={`Called, when it is opened: ${subject.code ?? 'of another maker'}, ${subject.what}`}
                  value={own}
                  onChange={(text) => set({ bars: bars.map((row, j) => (j === i ? { ...row, name: text } : row)) })}
                />
                <button type="button" className="button button-quiet" onClick={() => toggle(subject)}>
                  Leave out
                </button>
              </li>
            ))}
          </ul>
        )}
        <SubjectPicker label="Find a bar" chosen={bars.map(({ subject }) => keyOf(subject))} choose={toggle} most={8} />
        {bars.length > SENSIBLE && (
          <p className="mt-2 font-semibold">
            {bars.length} at one sitting tire a tongue: {SENSIBLE} or fewer are told apart better.
          </p>
        )}
      </Section>
      <Section title="Who and what" id="who">
        <div className="grid gap-4 md:grid-cols-[minmax(0,1fr)_8rem]">
          <Box label="What is asked" value={question} onChange={(text) => set({ question: text })} />
          <NumberBox label="Tasters" value={tasters} problem={wrong} onChange={(text) => set({ tasters: text })} />
          <Box label="Name of the session (empty: the bars)" value={name} onChange={(text) => set({ name: text })} />
        </div>
        {bars.length >= 2 && n !== null && wrong === undefined && (
          <p className="mt-2">
            {fairTasters(bars.length, n) === n
              ? `${n} tasters: every bar stands in every place, and after every other, equally often.`
              : `With ${fairTasters(bars.length, n)} instead of ${n} tasters every bar would stand in every place, and after every other, equally often.`}
            {n < 6 && ' Fewer than six seldom tell two good bars apart.'}
          </p>
        )}
        <Tick checked={scales} onChange={(on) => set({ scales: on })}>
          Sweet, bitter, sour and the other scales too; without them a round takes half the time
        </Tick>
      </Section>
      <div className="mt-4 flex flex-wrap gap-3">
        <button type="button" className="button button-main" disabled={busy || bars.length < 2} onClick={save}>
          Lay it out
        </button>
        <Link className="button button-quiet" to="/sessions">
          All sessions
        </Link>
      </div>
      <Refusal error={error} />
    </div>
  );
}
