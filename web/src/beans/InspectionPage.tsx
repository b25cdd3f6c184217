import { useMemo } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { useWatch } from 'react-hook-form';
import { z } from 'zod/mini';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { decision, inspectionSeen, type Inspection } from '@wunsch/core/beans/records';
import { checkCount } from '@wunsch/core/beans/sacks';
import { judgeCounts, judgeMoisture } from '@wunsch/core/beans/readings';
import { judgeArrival } from '@wunsch/core/beans/verdict';
import { ACTION_NAMES, ACTIONS, type Action } from '@wunsch/core/beans/words';
import { formatHeavy } from '@wunsch/core/units/mass';
import { useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Chips } from '../parts/fields';
import { Caution, Loading, Refusal } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { Field } from '../record/Field';
import { RecordFields, useReadable, useRecordForm, type RecordForm } from '../record/form';
import { CutTest } from './CutTest';
import { inspectionOf, NOTHING_COUNTED, rowsOf, sackText, type InspectionCounts } from './inspection-draft';
import { AddFile } from './Pictures';
import { forgetReadings, Readings } from './Readings';
import { useRecords } from './records';
import { SackList } from './SackList';
import { VerdictPanel } from './VerdictPanel';

/** One guided pass at a table, from the sacks to the verdict. */
export function InspectionPage() {
  const { code = '' } = useParams();
  const answer = useApi(`/api/beans/lots/${encodeURIComponent(code)}`);
  if (!answer.data) return <Loading error={answer.error} />;
  return <Pass key={answer.data.id} lot={answer.data} />;
}

const STEPS = ['Sacks', 'Smell and look', 'Moisture', 'Count', 'Cut test', 'Verdict'] as const;

/** What is chosen of a decision; nothing chosen means what is proposed. */
const deciding = z.object({
  action: z._default(z.nullable(decision.shape.action), null),
  allowance: decision.shape.allowance,
  word: decision.shape.word,
});

function Pass({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const { massSystem } = useHere().view.settings;
  const [query, setQuery] = useSearchParams();
  const draft = useDraft<InspectionCounts>(`inspect.${lot.code}`, () => ({
    ...NOTHING_COUNTED,
    sacks: lot.sackRows.map((row) => sackText(row, massSystem)),
  }));
  const look = useRecordForm(`inspect.${lot.code}`, inspectionSeen, () => ({ signs: { looked: false } }), true);
  const seen = useReadable(look);
  const { value } = draft;
  const set = (part: Partial<InspectionCounts>): void => draft.set((before) => ({ ...before, ...part }));
  const step = Math.min(STEPS.length - 1, Math.max(0, Number(query.get('step') ?? 0) || 0));
  const go = (to: number): void => setQuery({ step: String(to) }, { replace: true });
  const rows = useMemo(() => rowsOf(value.sacks, massSystem), [value.sacks, massSystem]);
  const check = useMemo(
    () =>
      rows.length === 0
        ? null
        : checkCount(
            rows,
            { sacks: lot.facts.invoiceSacks ?? lot.facts.sacks, netG: lot.facts.invoiceNetG ?? null },
            lot.papers.limits.weightPct,
            massSystem,
          ),
    [rows, lot, massSystem],
  );
  const found = useMemo(() => inspectionOf(value, seen), [value, seen]);
  const verdict = useMemo(() => judgeArrival(found, lot.papers.limits, check, lot.receivedG), [found, lot, check]);
  const said = [
    check ? formatHeavy(check.netG, massSystem) : '',
    found.smells.join(', '),
    value.moisture.length > 0
      ? `${(value.moisture.reduce((a, b) => a + b, 0) / value.moisture.length).toFixed(1)}\u00a0%`
      : '',
    value.per100g.length > 0
      ? `${Math.round(value.per100g.reduce((a, b) => a + b, 0) / value.per100g.length)} in 100 g`
      : '',
    value.marks.length > 0 ? `${value.marks.length} beans` : '',
    '',
  ];
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_18rem]">
      <div className="min-w-0">
        <h1 className="text-3xl">
          Inspect <span className="code">{lot.code}</span> {lot.name}
        </h1>
        <ol className="mt-3 mb-4 grid grid-cols-3 gap-x-2 gap-y-1 md:grid-cols-6">
          {STEPS.map((name, index) => (
            <li key={name}>
              <button
                type="button"
                aria-current={index === step ? 'step' : undefined}
                onClick={() => go(index)}
                className={`flex min-h-13 w-full flex-col items-start border-t-4 pt-1 text-left leading-tight ${index === step ? 'border-ink' : said[index] === '' ? 'border-rule text-soft' : 'border-leaf'}`}
              >
                <span className="block">{name}</span>
                <span className="block w-full truncate text-sm text-soft">{said[index]}</span>
              </button>
            </li>
          ))}
        </ol>
        {step === 0 && (
          <SackList
            sacks={value.sacks}
            inHand={value.sackInHand}
            check={check}
            change={(sacks, sackInHand) => set({ sacks, sackInHand })}
          />
        )}
        {step === 1 && (
          <RecordFields record={look}>
            <LookStep lot={lot} />
          </RecordFields>
        )}
        {step === 2 && (
          <Readings
            of={lot.code}
            label="Moisture"
            unit="%"
            digits={1}
            values={value.moisture}
            change={(moisture) => set({ moisture })}
            check={(reading) =>
              reading < 1
                ? 'is drier than any bean'
                : reading > 25
                  ? 'is wetter than any meter reads in dry beans: check the reading'
                  : null
            }
            hint="From the middle of different sacks; at least three say how much they differ."
          />
        )}
        {step === 3 && (
          <Readings
            of={lot.code}
            label="Beans in 100 g"
            unit="beans"
            digits={0}
            values={value.per100g}
            change={(per100g) => set({ per100g })}
            check={(count) => (count < 20 || count > 400 ? 'is not what 100 g can hold' : null)}
            hint="Weigh 100 g out of the mixed sample and count; twice or three times."
          />
        )}
        {step === 4 && (
          <CutTest
            planned={value.planned}
            marks={value.marks}
            setPlanned={(planned) => set({ planned, beyond: false })}
            beyond={value.beyond}
            goBeyond={() => set({ beyond: true })}
            change={(change) => draft.set((before) => ({ ...before, marks: change(before.marks) }))}
          />
        )}
        {step === 5 && (
          <VerdictStep
            lot={lot}
            draft={draft}
            look={look}
            found={found}
            verdict={verdict.action}
            claimG={verdict.claimG}
          />
        )}
        <StepVerdict draft={value} step={step} />
        <div className="mt-6 flex flex-wrap gap-3">
          {step > 0 && (
            <button type="button" className="button" onClick={() => go(step - 1)}>
              Back
            </button>
          )}
          {step < STEPS.length - 1 && (
            <button type="button" className="button button-main min-w-44" onClick={() => go(step + 1)}>
              On to {STEPS[step + 1]?.toLowerCase()}
            </button>
          )}
        </div>
      </div>
      <aside aria-label="Verdict so far and cautions">
        <VerdictPanel verdict={verdict} title="So far" />
        <div className="mt-5 grid gap-3">
          <Caution>
            Raw beans are not ready to eat: they can carry pathogens. Keep raw and roasted apart: hands, tubs, air.
          </Caution>
          {step === 0 && (
            <Caution>A full sack weighs {show.sack(60_000)} and more. Lift it with two, or a hoist.</Caution>
          )}
          {step === 4 && <Caution>Cut with a guillotine or with the bean on the board, never in the hand.</Caution>}
        </div>
      </aside>
    </div>
  );
}

function StepVerdict({ draft, step }: { draft: InspectionCounts; step: number }) {
  const judged = step === 2 ? judgeMoisture(draft.moisture) : step === 3 ? judgeCounts(draft.per100g) : null;
  if (!judged) return null;
  return <p className={`figure mt-5 text-xl ${judged.tone === 'bad' ? 'text-crimson' : ''}`}>{judged.sentence}</p>;
}

const SIGNS = ['looked', 'webbing', 'droppings', 'rodents'] as const;
const COUNTED = ['larvae', 'moths', 'wetSacks', 'tornSacks'] as const;

function LookStep({ lot }: { lot: BeanLotView }) {
  return (
    <div className="grid gap-5">
      <Field at="smells" />
      <fieldset>
        <legend className="label">Seen along the seams and in the beans</legend>
        <div className="flex flex-wrap gap-x-8">
          {SIGNS.map((sign) => (
            <Field key={sign} at={`signs.${sign}`} />
          ))}
        </div>
        <div className="mt-2 grid grid-cols-2 gap-4 sm:grid-cols-4">
          {COUNTED.map((sign) => (
            <Field key={sign} at={`signs.${sign}`} />
          ))}
        </div>
      </fieldset>
      <Field at="note" label="Anything else" />
      <AddFile code={lot.code} />
    </div>
  );
}

function VerdictStep({
  lot,
  draft,
  look,
  found,
  verdict,
  claimG,
}: {
  lot: BeanLotView;
  draft: ReturnType<typeof useDraft<InspectionCounts>>;
  look: RecordForm<typeof inspectionSeen>;
  /** As it will be saved. */
  found: Inspection;
  verdict: Action;
  claimG: number;
}) {
  const navigate = useNavigate();
  const { massSystem, currency } = useHere().view.settings;
  const { enter } = useRecords(lot.code);
  const record = useRecordForm(`decide.${lot.code}`, deciding, () => ({}));
  const action = useReadable(record).action ?? verdict;
  // What was typed stays in sight, whatever is decided then: it may be what is refused.
  const allowance = useWatch({ control: record.form.control, name: 'allowance' }) as string;
  const { value, key } = draft;
  const save = async (decide: boolean): Promise<void> => {
    const saved = await record.submit(async ({ allowance: asked, word }) => {
      if (!(await look.form.trigger()))
        throw new Error('Larvae, moths and sacks are counted: look at “Smell and look” again.');
      if (decide && action !== verdict && word.length < 3)
        throw new Error(
          `You decide otherwise than proposed (${ACTION_NAMES[verdict].toLowerCase()}): say why, in a word or two. It is kept.`,
        );
      const rows = rowsOf(value.sacks, massSystem);
      if (rows.length > 0) await enter({ kind: 'sacks', sacks: rows }, `${key}-sacks`);
      await enter({ ...found }, `${key}-inspection`);
      if (decide)
        await enter({ kind: 'decision', action, proposed: verdict, allowance: asked, word }, `${key}-decision`);
    });
    if (!saved) return;
    draft.clear();
    forgetReadings(lot.code);
    look.leave();
    void navigate(`/lot/${lot.code}`);
  };
  return (
    <RecordFields record={record}>
      <div className="grid gap-5">
        <Chips
          legend="You decide"
          options={ACTIONS.map(
            (name) => [name, name === verdict ? `${ACTION_NAMES[name]} (proposed)` : ACTION_NAMES[name]] as const,
          )}
          chosen={[action]}
          choose={([chosen]) => record.form.setValue('action', chosen ?? '', { shouldDirty: true })}
        />
        {(action === 'allowance' || allowance !== '') && (
          <Field
            at="allowance"
            label={`Allowance asked for (${currency})`}
            hint={
              claimG > 0
                ? `${formatHeavy(claimG, massSystem)} are surely over the contract; the claim sheet works them out.`
                : 'Nothing is surely over the contract yet.'
            }
            className="max-w-xs"
          />
        )}
        <Field at="word" label={action === verdict ? 'A word with it, if you like' : 'Why otherwise than proposed'} />
        <Refusal error={record.error} />
        <div className="flex flex-wrap gap-3">
          <button
            type="button"
            className="button button-main min-w-52 text-lg"
            disabled={record.busy}
            onClick={() => void save(true)}
          >
            {record.busy ? 'Saving …' : ACTION_NAMES[action]}
          </button>
          <button type="button" className="button" disabled={record.busy} onClick={() => void save(false)}>
            Save without deciding
          </button>
        </div>
      </div>
    </RecordFields>
  );
}
