import { PauseIcon, PlayIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import type { BenchView, HoldingView, WorkView } from '@wunsch/core/api/types';
import { workedMs } from '@wunsch/core/workshop/work';
import { isSure } from '../parts/asking';
import { useNow } from '../app/DueLine';
import { FIELDS, readFields, type FieldSpec } from '../entry/entry';
import { GoneWork } from '../entry/GoneWork';
import { StepForm } from '../entry/StepForm';
import { rejectField } from './fields';
import { SORT_WORK } from './work';
import { useChosenWork, WorkChips } from '../entry/WorkChips';
import { send, useApi } from '../parts/api';
import { hasDraft } from '../parts/draft';
import { Empty, Refusal, Section } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { SortFindings } from './SortFindings';
import { SortStart } from './SortStart';

/** Several people at the table: each has a session with a clock, piles by reason, and a mass check. */
export function SortBench({ view }: { view: BenchView }) {
  const show = useShow();
  const now = useNow();
  const { work, gone, select, done } = useChosenWork(view.works);
  const candidates = [...view.waiting, ...view.elsewhere].filter(({ freeMg }) => freeMg > 0);
  return (
    <div>
      <WorkChips
        works={view.works}
        chosen={work}
        select={select}
        another="Another session"
        words={(row) => [
          <>
            {row.person} · <span className="code">{row.sources.map(({ code }) => code).join(' + ')}</span>
            {row.sacks.length > 0 && ` sack ${row.sacks.join(', ')}`}
          </>,
          `${show.mass(row.massMg)}, ${clock(workedMs(row, now))}${row.pausedAt === null ? '' : ', paused'}`,
        ]}
      />
      {gone !== undefined ? (
        <GoneWork key={gone} workId={gone} onDone={done} />
      ) : work ? (
        <Session key={work.id} work={work} onDone={done} />
      ) : candidates.length === 0 ? (
        <Empty title="Nothing waits to be sorted.">Lots that were taken in show here, the oldest first.</Empty>
      ) : (
        <Begin candidates={candidates} onStarted={select} />
      )}
    </div>
  );
}

/** The usual piles, and the workshop's own behind them. */
function useSortFields(): readonly FieldSpec[] {
  const { rejectReasons } = useHere().view.settings;
  const usual = FIELDS.sort ?? [];
  const own = rejectReasons.map(rejectField);
  return [...usual.filter(({ type }) => type === 'mass'), ...own, ...usual.filter(({ type }) => type !== 'mass')];
}

/** At the table with a clock, or entered afterwards. */
function Begin({ candidates, onStarted }: { candidates: readonly HoldingView[]; onStarted: (workId: string) => void }) {
  const [done, setDone] = useState(() => hasDraft('once.sort'));
  const specs = useSortFields();
  return (
    <>
      <div className="mb-5 flex flex-wrap gap-2" role="group" aria-label="How to enter it">
        <button type="button" className="chip" aria-pressed={!done} onClick={() => setDone(false)}>
          Sort with the clock
        </button>
        <button type="button" className="chip" aria-pressed={done} onClick={() => setDone(true)}>
          Enter sorting that is done
        </button>
      </div>
      {done ? (
        <StepForm
          kind="sort"
          station="sort"
          draftId="once.sort"
          shownFirst={8}
          candidates={candidates}
          submit="Save the sorting"
          specs={specs}
          finish={(values, sources) => ({ ...values, sources })}
          {...SORT_WORK.sum}
        />
      ) : (
        <SortStart candidates={candidates} onStarted={onStarted} />
      )}
    </>
  );
}

/** `1:07:42`: hours only when there are any. */
function clock(ms: number): string {
  const seconds = Math.floor(ms / 1000);
  const two = (value: number): string => String(value).padStart(2, '0');
  const hours = Math.floor(seconds / 3600);
  return `${hours > 0 ? `${hours}:${two(Math.floor(seconds / 60) % 60)}` : Math.floor(seconds / 60)}:${two(seconds % 60)}`;
}

function Session({ work, onDone }: { work: WorkView; onDone: () => void }) {
  const show = useShow();
  const now = useNow();
  const specs = useSortFields();
  const { busy, error, run } = useSave();
  const source = work.sources[0];
  const findings = useApi(source?.kind === 'lot' ? `/api/sort/lots/${encodeURIComponent(source.code)}` : null);
  const paused = work.pausedAt !== null;
  const ms = workedMs(work, now);
  const turn = (): void =>
    void run(() => send('POST', `/api/ledger/works/${work.id}/${paused ? 'resume' : 'pause'}`, {}));
  const putBack = async (): Promise<void> => {
    const what = 'As if this had not begun. What was typed here is thrown away.';
    if (!(await isSure({ title: `Put ${show.mass(work.massMg)} back?`, what, yes: 'Put it back' }))) return;
    void run(() => send('DELETE', `/api/ledger/works/${work.id}`)).then((done) => done && onDone());
  };
  return (
    <>
      <div className="mb-5 flex flex-wrap items-center gap-x-6 gap-y-2">
        <p className="figure text-6xl tabular-nums" aria-label="Time at the table">
          {clock(ms)}
        </p>
        <button type="button" className="button min-w-36" disabled={busy} onClick={turn}>
          {paused ? (
            <PlayIcon size={18} weight="fill" aria-hidden />
          ) : (
            <PauseIcon size={18} weight="fill" aria-hidden />
          )}
          {paused ? 'Go on' : 'Pause'}
        </button>
        <p className="text-lg">
          {work.person} sorts {show.mass(work.massMg)} of <span className="code">{source?.code}</span> {source?.name}
          {work.sacks.length > 0 && `, sack ${work.sacks.join(', ')}`}.
        </p>
      </div>
      <Refusal error={error} />
      <StepForm
        kind="sort"
        station="sort"
        as={work.personId}
        draftId={`work.${work.id}`}
        fixed={work.sources}
        machineId={work.machineId}
        minutes={ms / 60_000}
        path={`/api/ledger/works/${work.id}/finish`}
        submit="Save the sorting"
        specs={specs}
        finish={(values, sources) => ({ ...values, sources, sacks: work.sacks })}
        onSaved={onDone}
        below={({ fields }) => (
          <SoFar
            inMg={work.massMg}
            ms={ms}
            values={readFields('sort', fields, { temperature: 'C', heavy: 'kg' }, specs).values}
          />
        )}
        {...SORT_WORK.sum}
      />
      <button type="button" className="button button-quiet mt-2" onClick={() => void putBack()}>
        Put it all back
      </button>
      {findings.data && source && (
        <Section title={`${source.code} so far`}>
          <SortFindings view={findings.data} />
        </Section>
      )}
    </>
  );
}

/** The share picked out so far, and what its largest pile is, while the piles are weighed. */
function SoFar({ inMg, ms, values }: { inMg: number; ms: number; values: Record<string, unknown> }) {
  const show = useShow();
  const rejects = (values['rejects'] ?? []) as { reason: string; massG: number }[];
  const sum = rejects.reduce((total, { massG }) => total + massG * 1000, 0);
  if (sum === 0) return null;
  const largest = rejects.reduce((most, row) => (row.massG > most.massG ? row : most));
  return (
    <p className="figure mt-4 text-xl" aria-live="polite">
      {show.percent(sum / inMg)} picked out, most of it {largest.reason}
      {typeof values['goodG'] === 'number' &&
        ms > 60_000 &&
        `; ${show.heavyFromGrams(inMg / 1000 / (ms / 3_600_000)).toFixed(1)} ${show.heavy} an hour`}
      .
    </p>
  );
}
