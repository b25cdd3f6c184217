import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { BenchView } from '@wunsch/core/api/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { untilWords, useNow } from '../app/DueLine';
import { GoneWork } from '../entry/GoneWork';
import { StepForm } from '../entry/StepForm';
import { FinishWork, usualIn } from '../entry/WorkBench';
import { ROAST_WORK } from './work';
import { useChosenWork, WorkChips } from '../entry/WorkChips';
import { hasDraft } from '../parts/draft';
import { Empty, Section } from '../parts/pieces';
import { span, useShow } from '../parts/workshop';
import { Cooling } from './Cooling';
import { useHandKept } from './HandKept';
import { LiveRoast } from './LiveRoast';
import { LoadTable, useLoads } from './LoadTable';
import { RoastStart } from './RoastStart';
import { RoastingNav } from './RoastingNav';

const SHOWN = 6;

/** What is in the roaster, what goes in next, what cools, what came out lately. */
export function RoastBench({ view }: { view: BenchView }) {
  const show = useShow();
  const now = useNow();
  const navigate = useNavigate();
  const [oneGo, setOneGo] = useState(() => hasDraft('once.roast'));
  const { work, gone, select, done } = useChosenWork(view.works);
  const loads = useLoads(SHOWN);
  const handKept = useHandKept();
  const candidates = [...view.waiting, ...view.elsewhere].filter(({ freeMg }) => freeMg > 0);
  const { verbs, sum } = ROAST_WORK;
  /** The judgement of what was just weighed out is what comes next. */
  const judged = (code: string | undefined): void => {
    if (code !== undefined) void navigate(`/roasting/load/${code}`);
  };
  return (
    <div>
      {work && view.works.length === 1 ? (
        <p className="mb-1 flex flex-wrap items-baseline gap-x-4">
          <span className="text-lg">
            <span className="code">{work.sources.map(({ code }) => code).join(' + ')}</span> {work.sources[0]?.name}
            {work.machine !== null && <span className="text-soft">, {work.machine}</span>}
          </span>
          <button type="button" className="button button-quiet" onClick={() => select('new')}>
            Another load
          </button>
        </p>
      ) : (
        <WorkChips
          works={view.works}
          chosen={work}
          select={select}
          another="Another load"
          words={(row) => [
            <>
              <span className="code">{row.sources.map(({ code }) => code).join(' + ')}</span> · {show.mass(row.massMg)}
            </>,
            <>
              {row.machine ?? 'in the roaster'}, {span(now - row.startedAt)} in
              {row.dueAt !== null && `, due ${untilWords(row.dueAt, now)}`}
            </>,
          ]}
        />
      )}
      {gone !== undefined ? (
        <GoneWork key={gone} workId={gone} onDone={done} />
      ) : work?.live ? (
        <LiveRoast key={work.id} work={work} onDone={done} onSaved={judged} />
      ) : work ? (
        <FinishWork key={work.id} work={work} station={ROAST_WORK} extras={handKept} onDone={done} />
      ) : candidates.length === 0 ? (
        <Empty
          title={`Nothing waits at ${STATION_NAMES.roast}.`}
          action={
            <Link className="button" to="/roasting">
              Look at the programs meanwhile
            </Link>
          }
        >
          What the sorting table sends on will show here, with its code and its weight.
        </Empty>
      ) : (
        <>
          {oneGo ? (
            <StepForm
              kind="roast"
              station="roast"
              draftId="once.roast"
              candidates={candidates}
              submit={verbs.finish}
              usualInG={usualIn(view, 'roast')}
              below={handKept.below}
              problem={handKept.problem}
              finish={(values, sources, entry) => ({ ...values, ...handKept.command?.(entry), sources })}
              {...sum}
            />
          ) : (
            <RoastStart candidates={candidates} waiting={view.waiting.length} onStarted={select} />
          )}
          <button type="button" className="button button-quiet mt-2 px-0!" onClick={() => setOneGo(!oneGo)}>
            {oneGo ? 'One goes in now instead' : verbs.oneGo}
          </button>
        </>
      )}
      <Cooling />
      <Section title="Loads lately" aside={<RoastingNav />}>
        {loads && loads.length > 0 ? (
          <LoadTable loads={loads} />
        ) : (
          <p className="text-soft">No load yet: the first one will be drawn, judged and kept here.</p>
        )}
      </Section>
    </div>
  );
}
