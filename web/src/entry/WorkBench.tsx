import { useState, type ReactNode } from 'react';
import type { BenchView, HoldingView, WorkView } from '@wunsch/core/api/types';
import { STEP_OF } from '@wunsch/core/ledger/accepts';
import type { Command } from '@wunsch/core/ledger/commands';
import { usual, type Nearby } from '@wunsch/core/entry/doubt';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { isSure } from '../parts/asking';
import { untilWords, useNow } from '../app/DueLine';
import { send } from '../parts/api';
import { hasDraft } from '../parts/draft';
import { typedNumber } from '../parts/number';
import { Marks } from '../parts/marks';
import { Empty, Refusal } from '../parts/pieces';
import { span, useHere, useShow } from '../parts/workshop';
import type { Fields } from './entry';
import type { Part } from './MassBar';
import { GoneWork } from './GoneWork';
import { StartForm } from './StartForm';
import { useChosenWork, WorkChips } from './WorkChips';
import { StepForm, type Below, type Choosing, type Entry } from './StepForm';

export const VERBS: Partial<Record<string, { start: string; finish: string; oneGo: string }>> = {
  sort: { start: 'Begin sorting', finish: 'Save the sorting', oneGo: 'Enter sorting that is done' },
  roast: { start: 'Start the roast', finish: 'Save the load', oneGo: 'Enter a load that is done' },
  winnow: { start: 'Begin winnowing', finish: 'Save nibs and husk', oneGo: 'Enter winnowing that is done' },
  temper: { start: 'Begin the pour', finish: 'Save the temper', oneGo: 'Enter a pour that is done' },
  mould: { start: 'Fill the moulds', finish: 'Save the bars', oneGo: 'Enter moulding that is done' },
};

const amount = (value: unknown): number => (typeof value === 'number' ? value * 1000 : 0);

/** How each kind of work splits what went in, for the running sum. */
export const PARTS: Partial<
  Record<Command['kind'], { parts: (values: Record<string, unknown>) => Part[]; rest: string; tone?: Part['tone'] }>
> = {
  sort: {
    parts: (v) => [
      { name: 'good', mg: amount(v['goodG']), tone: 'good' },
      ...((v['rejects'] ?? []) as { reason: string; massG: number }[]).map(({ reason, massG }): Part => ({
        name: reason,
        mg: massG * 1000,
        tone: 'loss',
      })),
    ],
    rest: 'missing',
  },
  roast: {
    parts: (v) => [{ name: 'roasted', mg: amount(v['outG']), tone: 'good' }],
    rest: 'water and volatiles',
    tone: 'loss',
  },
  winnow: {
    parts: (v) => [
      { name: 'nibs', mg: amount(v['nibsG']), tone: 'good' },
      { name: 'husk', mg: amount(v['huskG']), tone: 'by' },
      { name: 'dust', mg: amount(v['dustG']), tone: 'loss' },
    ],
    rest: 'missing',
  },
  silk: {
    parts: (v) => (v['outG'] === undefined ? [] : [{ name: 'silk', mg: amount(v['outG']), tone: 'good' }]),
    rest: 'silk or left behind',
  },
  temper: {
    parts: (v) => (v['outG'] === undefined ? [] : [{ name: 'in temper', mg: amount(v['outG']), tone: 'good' }]),
    rest: 'in temper or left behind',
  },
  mould: {
    parts: (v) => {
      const barG = typeof v['barG'] === 'number' ? v['barG'] : 0;
      const good = v['goodG'] === undefined ? barG * Number(v['goodPieces'] ?? 0) * 1000 : amount(v['goodG']);
      return [
        { name: 'good bars', mg: good, tone: 'good' },
        { name: 'seconds', mg: barG * Number(v['secondsPieces'] ?? 0) * 1000, tone: 'by' },
        { name: 'remelt', mg: amount(v['remeltG']), tone: 'by' },
        { name: 'blocks', mg: amount(v['blockG']), tone: 'by' },
        { name: 'samples', mg: amount(v['sampleG']), tone: 'loss' },
        { name: 'trimmings', mg: amount(v['trimmingsG']), tone: 'loss' },
        { name: 'in the machine', mg: amount(v['holdUpG']), tone: 'loss' },
      ];
    },
    rest: 'missing',
  },
};

/** What one station asks for beside its weights; of work under way, or of an entry in one go. */
export interface StationExtras {
  below?: (state: Below) => ReactNode;
  /** Its part of the command. */
  command?: (entry: Entry) => Record<string, unknown>;
  /** What of it cannot be read, in words. */
  problem: (entry: Entry, work?: WorkView) => string | null;
  /** What joins from the pantry when the work is weighed out. */
  joins?: (entry: Entry, work: WorkView) => { holdingId: string; massG: number }[];
}

/** What a station shows of work under way, and may type into its fields. */
export type Follow = (work: WorkView, entry: Choosing) => ReactNode;

/** Roast, winnow, temper, mould: weigh in and begin, weigh out and save. */
export function WorkBench({ view, extras, follow }: { view: BenchView; extras?: StationExtras; follow?: Follow }) {
  const show = useShow();
  const now = useNow();
  const [oneGo, setOneGo] = useState(() => hasDraft(`once.${view.station}`));
  const kind = STEP_OF[view.station] as Command['kind'];
  const verbs = VERBS[view.station] ?? { start: 'Begin', finish: 'Save', oneGo: 'Enter it in one go' };
  const { work, gone, select, done } = useChosenWork(view.works);
  const { materials } = useHere().view;
  const isBase = ({ materialId }: HoldingView): boolean =>
    materials.some(({ id, cocoa }) => id === materialId && cocoa === 'couverture');
  const stocked =
    view.station === 'temper' || view.station === 'mould'
      ? view.pantry.filter(({ kind: k }) => k === 'ingredient')
      : [];
  // Bought chocolate is worked like one's own; the rest of the pantry only joins.
  const candidates = [
    ...[...view.waiting, ...view.elsewhere].filter(({ freeMg }) => freeMg > 0),
    ...(view.station === 'temper' ? stocked.filter(isBase) : []),
  ];
  const pantry = stocked.filter((holding) => !candidates.includes(holding));
  const parts = PARTS[kind];
  const shownFirst = Math.min(12, Math.max(2, view.waiting.filter(({ freeMg }) => freeMg > 0).length));
  return (
    <div>
      <WorkChips
        works={view.works}
        chosen={work}
        select={select}
        another={verbs.start}
        words={(row) => [
          <>
            <span className="code">{row.sources.map(({ code }) => code).join(' + ')}</span> · {show.mass(row.massMg)}
          </>,
          <>
            {span(now - row.startedAt)} under way{row.dueAt !== null && `, due ${untilWords(row.dueAt, now)}`}
          </>,
        ]}
      />
      {gone !== undefined ? (
        <GoneWork key={gone} workId={gone} onDone={done} />
      ) : work ? (
        <FinishWork
          key={work.id}
          work={work}
          kind={kind}
          submit={verbs.finish}
          extras={extras}
          follow={follow}
          onDone={done}
        />
      ) : candidates.length === 0 ? (
        <Empty title={`Nothing waits at ${STATION_NAMES[view.station]}.`}>
          What the station before sends on will show here, with its code and its weight.
        </Empty>
      ) : (
        <>
          <div className="mb-5 flex flex-wrap gap-2" role="group" aria-label="How to enter it">
            <button type="button" className="chip" aria-pressed={!oneGo} onClick={() => setOneGo(false)}>
              {verbs.start}
            </button>
            <button type="button" className="chip" aria-pressed={oneGo} onClick={() => setOneGo(true)}>
              {verbs.oneGo}
            </button>
          </div>
          {oneGo ? (
            <StepForm
              kind={kind}
              station={view.station}
              draftId={`once.${view.station}`}
              shownFirst={shownFirst}
              candidates={[...candidates, ...pantry]}
              initial={defaults(view, kind)}
              usualInG={usualIn(view, kind)}
              past={pastOf(view, kind)}
              path="/api/ledger/steps"
              submit={verbs.finish}
              finish={(values, sources, entry) => ({ ...values, ...extras?.command?.(entry), sources })}
              {...(extras ? { below: (state: Below) => extras.below?.(state), problem: extras.problem } : {})}
              {...(parts ? { parts: parts.parts, restName: parts.rest, restTone: parts.tone ?? 'missing' } : {})}
            />
          ) : (
            <StartForm
              key={view.station}
              station={view.station}
              candidates={[...candidates, ...pantry]}
              shownFirst={shownFirst}
              usualInG={usualIn(view, kind)}
              submit={verbs.start}
              onStarted={(id) => select(id)}
            />
          )}
        </>
      )}
    </div>
  );
}

/** Grams that usually go in at a station: the middle of what went in lately. */
export const usualIn = (view: BenchView, kind: Command['kind']): number | null =>
  usual(view.recent.filter((step) => step.kind === kind).map(({ inMg }) => inMg / 1000));

/** What the weight of a bar was lately. */
const pastOf = (view: BenchView, kind: Command['kind']): Nearby => {
  const last = view.recent.find((step) => step.kind === kind)?.command as { barG?: number } | undefined;
  return kind === 'mould'
    ? { barG: { value: last?.barG ?? 70, of: last ? 'The last bars weighed' : 'Bars often weigh' } }
    : {};
};

/** What stands in a field before anybody types: the last program, the usual bar. */
function defaults(view: BenchView, kind: Command['kind']): Fields {
  const last = view.recent.find((step) => step.kind === kind)?.command as
    Record<string, string | number | undefined> | undefined;
  const keep: Record<string, string[]> = { temper: ['method'], mould: ['barG', 'cavities'], winnow: ['setting'] };
  const fields: Fields = kind === 'temper' ? { method: { text: 'slab' }, test: { text: 'none' } } : {};
  for (const name of keep[kind] ?? [])
    if (last?.[name] !== undefined)
      fields[name] = { text: String(last[name]), ...(name === 'barG' ? { unit: 'g' as const } : {}) };
  return fields;
}

/** Work that is weighed out. */
export function FinishWork({
  work,
  kind,
  submit,
  extras,
  follow,
  onDone,
}: {
  work: WorkView;
  extras: StationExtras | undefined;
  follow?: Follow | undefined;
  kind: Command['kind'];
  submit: string;
  onDone: () => void;
}) {
  const { view } = useHere();
  const show = useShow();
  const now = useNow();
  const [error, setError] = useState<unknown>(null);
  const machine = view.machines.find(({ id }) => id === work.machineId);
  const hours = (now - work.startedAt) / 3_600_000;
  const parts = PARTS[kind];
  const initial: Fields =
    kind === 'temper'
      ? { method: { text: work.school ?? 'slab' }, test: { text: 'none' } }
      : kind === 'mould'
        ? { barG: { text: typedNumber(work.moulding?.barG ?? 70), unit: 'g' } }
        : {};
  const putBack = async (): Promise<void> => {
    const what = 'As if this had not begun. What was typed here is thrown away.';
    if (!(await isSure({ title: `Put ${show.mass(work.massMg)} back?`, what, yes: 'Put it back' }))) return;
    try {
      await send('DELETE', `/api/ledger/works/${work.id}`);
      onDone();
    } catch (reason) {
      setError(reason);
    }
  };
  return (
    <>
      <p className="mb-4">
        <span className="figure text-2xl">{show.mass(work.massMg)}</span> went in {span(now - work.startedAt)} ago
        {work.machine !== null && `, ${work.machine}`}, by {work.person}.{work.note !== '' && ` ${work.note}.`}
        <Marks marks={work.marks} allergens={work.allergens} />
        {work.overrides.map(({ gate, sentence, word }) => (
          <span key={gate} className="block text-crimson">
            {sentence} Gone past: “{word}”.
          </span>
        ))}
      </p>
      <StepForm
        kind={kind}
        station={work.station}
        draftId={`work.${work.id}`}
        fixed={work.sources}
        initial={initial}
        machineId={work.machineId}
        minutes={kind === 'roast' ? Math.min(hours * 60, 20) : Math.min(hours * 60, 480)}
        kwh={(machine?.kw ?? 0) * Math.min(hours, 8)}
        path={`/api/ledger/works/${work.id}/finish`}
        submit={submit}
        {...(extras?.joins ? { joins: (entry: Entry) => extras.joins?.(entry, work) ?? [] } : {})}
        finish={(values, sources, entry) => ({ ...values, ...extras?.command?.(entry), sources })}
        {...(extras
          ? {
              below: (state: Below) => extras.below?.({ ...state, codes: work.sources.map(({ code }) => code) }),
              problem: (entry: Entry) => extras.problem(entry, work),
            }
          : {})}
        {...(follow ? { before: (entry: Choosing) => follow(work, entry), beside: true } : {})}
        onSaved={onDone}
        {...(parts ? { parts: parts.parts, restName: parts.rest, restTone: parts.tone ?? 'missing' } : {})}
      />
      <button type="button" className="button button-quiet mt-2" onClick={() => void putBack()}>
        Put it all back
      </button>
      <Refusal error={error} />
    </>
  );
}
