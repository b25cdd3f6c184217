import { useState, type ReactNode } from 'react';
import type { BenchView, HoldingView, WorkView } from '@wunsch/core/api/types';
import type { Command } from '@wunsch/core/commands';
import { usual } from '@wunsch/core/entry/doubt';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { isSure } from '../parts/asking';
import { untilWords, useNow } from '../app/DueLine';
import { send } from '../parts/api';
import { hasDraft } from '../parts/draft';
import { Marks } from '../parts/marks';
import { Empty, Refusal } from '../parts/pieces';
import { span, useHere, useShow } from '../parts/workshop';
import type { Fields } from './entry';
import { GoneWork } from './GoneWork';
import { StartForm } from './StartForm';
import type { StationWork } from './station-work';
import { useChosenWork, WorkChips } from './WorkChips';
import { StepForm } from './StepForm';
import type { Below, Choosing, Entry } from './step-form';

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

/** Weigh in and begin, weigh out and save. */
export function WorkBench({
  view,
  station,
  extras,
  follow,
}: {
  view: BenchView;
  station: StationWork;
  extras?: StationExtras;
  follow?: Follow;
}) {
  const show = useShow();
  const now = useNow();
  const [oneGo, setOneGo] = useState(() => hasDraft(`once.${view.station}`));
  const { kind, verbs, pantry: joining } = station;
  const { work, gone, select, done } = useChosenWork(view.works);
  const { materials } = useHere().view;
  const isBase = ({ materialId }: HoldingView): boolean =>
    materials.some(({ id, cocoa }) => id === materialId && cocoa === 'couverture');
  const stocked = joining === undefined ? [] : view.pantry.filter(({ kind: k }) => k === 'ingredient');
  // Bought chocolate is worked like one's own; the rest of the pantry only joins.
  const candidates = [
    ...[...view.waiting, ...view.elsewhere].filter(({ freeMg }) => freeMg > 0),
    ...(joining === 'joins, and is worked' ? stocked.filter(isBase) : []),
  ];
  const pantry = stocked.filter((holding) => !candidates.includes(holding));
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
        <FinishWork key={work.id} work={work} station={station} extras={extras} follow={follow} onDone={done} />
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
              initial={defaults(view, station)}
              usualInG={usualIn(view, kind)}
              past={station.past?.(view) ?? {}}
              submit={verbs.finish}
              finish={(values, sources, entry) => ({ ...values, ...extras?.command?.(entry), sources })}
              {...(extras ? { below: (state: Below) => extras.below?.(state), problem: extras.problem } : {})}
              {...station.sum}
            />
          ) : (
            <StartForm
              key={view.station}
              station={view.station}
              kind={kind}
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

/** What stands in a field before anybody types: what was so the last time. */
function defaults(view: BenchView, { kind, keeps = [], begins }: StationWork): Fields {
  const last = view.recent.find((step) => step.kind === kind)?.command as
    Record<string, string | number | undefined> | undefined;
  const fields: Fields = begins?.(undefined) ?? {};
  for (const { name, unit } of keeps)
    if (last?.[name] !== undefined) fields[name] = { text: String(last[name]), ...(unit ? { unit } : {}) };
  return fields;
}

/** Work that is weighed out. */
export function FinishWork({
  work,
  station: { kind, verbs, sum, begins, mostMinutes = 480 },
  extras,
  follow,
  onDone,
}: {
  work: WorkView;
  extras: StationExtras | undefined;
  follow?: Follow | undefined;
  station: StationWork;
  onDone: () => void;
}) {
  const { view } = useHere();
  const show = useShow();
  const now = useNow();
  const [error, setError] = useState<unknown>(null);
  const machine = view.machines.find(({ id }) => id === work.machineId);
  const hours = (now - work.startedAt) / 3_600_000;
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
        initial={begins?.(work) ?? {}}
        machineId={work.machineId}
        minutes={Math.min(hours * 60, mostMinutes)}
        kwh={(machine?.kw ?? 0) * Math.min(hours, 8)}
        path={`/api/ledger/works/${work.id}/finish`}
        submit={verbs.finish}
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
        {...sum}
      />
      <button type="button" className="button button-quiet mt-2" onClick={() => void putBack()}>
        Put it all back
      </button>
      <Refusal error={error} />
    </>
  );
}
