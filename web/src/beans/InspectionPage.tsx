import { useMemo } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { checkCount } from '@wunsch/core/beans/sacks';
import { judgeCounts, judgeMoisture } from '@wunsch/core/beans/readings';
import { judgeArrival } from '@wunsch/core/beans/verdict';
import { ACTION_NAMES, ACTIONS, type Action } from '@wunsch/core/beans/words';
import { useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, Chips, NumberBox, Tick } from '../parts/fields';
import { readNumber, readNumbers, unreadable } from '../parts/number';
import { Caution, Loading, Refusal } from '../parts/pieces';
import { useHere } from '../parts/workshop';
import { CutTest } from './CutTest';
import { EMPTY_INSPECTION, inspectionOf, rowsOf, sackText, type InspectionDraft } from './inspection-draft';
import { AddFile } from './Pictures';
import { Readings } from './Readings';
import { useRecords } from './records';
import { SackList } from './SackList';
import { SMELL_OPTIONS } from './smells';
import { VerdictPanel } from './VerdictPanel';

/** One guided pass at a table, from the sacks to the verdict. */
export function InspectionPage() {
  const { code = '' } = useParams();
  const answer = useApi(`/api/beans/lots/${encodeURIComponent(code)}`);
  if (!answer.data) return <Loading error={answer.error} />;
  return <Pass key={answer.data.id} lot={answer.data} />;
}

const STEPS = ['Sacks', 'Smell and look', 'Moisture', 'Count', 'Cut test', 'Verdict'] as const;

function Pass({ lot }: { lot: BeanLotView }) {
  const { massSystem } = useHere().view.settings;
  const [query, setQuery] = useSearchParams();
  const draft = useDraft<InspectionDraft>(`inspect.${lot.code}`, () => ({
    ...EMPTY_INSPECTION,
    sacks: lot.sackRows.map((row) => sackText(row, massSystem)),
  }));
  const { value } = draft;
  const set = (part: Partial<InspectionDraft>): void => draft.set((before) => ({ ...before, ...part }));
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
          ),
    [rows, lot],
  );
  const found = useMemo(() => inspectionOf(value), [value]);
  const verdict = useMemo(() => judgeArrival(found, lot.papers.limits, check, lot.receivedG), [found, lot, check]);
  const said = [
    check ? `${(check.netG / 1000).toFixed(1)} kg` : '',
    value.smells.join(', '),
    value.moisture.length > 0
      ? `${(value.moisture.reduce((a, b) => a + b, 0) / value.moisture.length).toFixed(1)} %`
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
        {step === 1 && <LookStep lot={lot} draft={value} set={set} />}
        {step === 2 && (
          <Readings
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
        {step === 5 && <VerdictStep lot={lot} draft={draft} verdict={verdict.action} claimG={verdict.claimG} />}
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
          {step === 0 && <Caution>A full sack weighs 60 kg and more. Lift it with two, or a hoist.</Caution>}
          {step === 4 && <Caution>Cut with a guillotine or with the bean on the board, never in the hand.</Caution>}
        </div>
      </aside>
    </div>
  );
}

function StepVerdict({ draft, step }: { draft: InspectionDraft; step: number }) {
  const judged = step === 2 ? judgeMoisture(draft.moisture) : step === 3 ? judgeCounts(draft.per100g) : null;
  if (!judged) return null;
  return <p className={`figure mt-5 text-xl ${judged.tone === 'bad' ? 'text-crimson' : ''}`}>{judged.sentence}</p>;
}

type SetDraft = (part: Partial<InspectionDraft>) => void;

function LookStep({ lot, draft, set }: { lot: BeanLotView; draft: InspectionDraft; set: SetDraft }) {
  const sign = (part: Partial<InspectionDraft['signs']>): void => set({ signs: { ...draft.signs, ...part } });
  return (
    <div className="grid gap-5">
      <Chips
        legend="It smells of"
        several
        options={SMELL_OPTIONS}
        chosen={draft.smells}
        choose={(smells) => set({ smells })}
      />
      <fieldset>
        <legend className="label">Seen along the seams and in the beans</legend>
        <div className="flex flex-wrap gap-x-8">
          <Tick checked={draft.signs.looked === true} onChange={(looked) => sign({ looked })}>
            I looked: none of these
          </Tick>
          <Tick checked={draft.signs.webbing} onChange={(webbing) => sign({ webbing })}>
            Webbing
          </Tick>
          <Tick checked={draft.signs.droppings} onChange={(droppings) => sign({ droppings })}>
            Droppings of insects
          </Tick>
          <Tick checked={draft.signs.rodents} onChange={(rodents) => sign({ rodents })}>
            Gnawing or droppings of rats and mice
          </Tick>
        </div>
        <div className="mt-2 grid grid-cols-2 gap-4 sm:grid-cols-4">
          <NumberBox
            label="Larvae"
            value={draft.signs.larvae}
            problem={unreadable(draft.signs.larvae)}
            onChange={(larvae) => sign({ larvae })}
            placeholder="0"
          />
          <NumberBox
            label="Live moths, beetles"
            value={draft.signs.moths}
            problem={unreadable(draft.signs.moths)}
            onChange={(moths) => sign({ moths })}
            placeholder="0"
          />
          <NumberBox
            label="Wet sacks"
            value={draft.signs.wetSacks}
            problem={unreadable(draft.signs.wetSacks)}
            onChange={(wetSacks) => sign({ wetSacks })}
            placeholder="0"
          />
          <NumberBox
            label="Torn sacks"
            value={draft.signs.tornSacks}
            problem={unreadable(draft.signs.tornSacks)}
            onChange={(tornSacks) => sign({ tornSacks })}
            placeholder="0"
          />
        </div>
      </fieldset>
      <Box label="Anything else" value={draft.note} onChange={(note) => set({ note })} />
      <AddFile code={lot.code} />
    </div>
  );
}

function VerdictStep({
  lot,
  draft,
  verdict,
  claimG,
}: {
  lot: BeanLotView;
  draft: ReturnType<typeof useDraft<InspectionDraft>>;
  verdict: Action;
  claimG: number;
}) {
  const navigate = useNavigate();
  const { massSystem } = useHere().view.settings;
  const { currency } = useHere().view.settings;
  const { write, busy, error, fail } = useRecords(lot.code);
  const { value, key } = draft;
  const action = value.action ?? verdict;
  const save = async (decide: boolean): Promise<void> => {
    if (decide && action !== verdict && value.word.trim().length < 3)
      return fail(
        `You decide otherwise than proposed (${ACTION_NAMES[verdict].toLowerCase()}): say why, in a word or two. It is kept.`,
      );
    const { webbing: _w, droppings: _d, rodents: _r, looked: _l, ...counts } = value.signs;
    if (Object.keys(readNumbers(counts).wrong).length > 0)
      return fail('Larvae, moths and sacks are counted: look at “Smell and look” again.');
    if (unreadable(value.allowance) !== undefined) return fail('The allowance is not a number.');
    const rows = rowsOf(value.sacks, massSystem);
    if (rows.length > 0 && !(await write({ kind: 'sacks', sacks: rows }, `${key}-sacks`))) return;
    if (!(await write({ ...inspectionOf(value) }, `${key}-inspection`))) return;
    if (decide) {
      const allowance = readNumber(value.allowance) ?? 0;
      if (
        !(await write({ kind: 'decision', action, proposed: verdict, allowance, word: value.word }, `${key}-decision`))
      )
        return;
    }
    draft.clear();
    void navigate(`/lot/${lot.code}`);
  };
  return (
    <div className="grid gap-5">
      <Chips
        legend="You decide"
        options={ACTIONS.map(
          (name) => [name, name === verdict ? `${ACTION_NAMES[name]} (proposed)` : ACTION_NAMES[name]] as const,
        )}
        chosen={[action]}
        choose={([chosen]) => draft.set((before) => ({ ...before, action: chosen ?? null }))}
      />
      {action === 'allowance' && (
        <NumberBox
          label="Allowance asked for"
          unit={currency}
          value={value.allowance}
          onChange={(allowance) => draft.set((before) => ({ ...before, allowance }))}
          hint={
            claimG > 0
              ? `${(claimG / 1000).toFixed(1)} kg are surely over the contract; the claim sheet works them out.`
              : 'Nothing is surely over the contract yet.'
          }
          className="max-w-xs"
        />
      )}
      <Box
        label={action === verdict ? 'A word with it, if you like' : 'Why otherwise than proposed'}
        value={value.word}
        onChange={(word) => draft.set((before) => ({ ...before, word }))}
      />
      <Refusal error={error} />
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="button button-main min-w-52 text-lg"
          disabled={busy}
          onClick={() => void save(true)}
        >
          {busy ? 'Saving …' : `${ACTION_NAMES[action]}`}
        </button>
        <button type="button" className="button" disabled={busy} onClick={() => void save(false)}>
          Save without deciding
        </button>
      </div>
    </div>
  );
}
