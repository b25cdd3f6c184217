import { CheckIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { WeighingView } from '@wunsch/core/api/recipe';
import { judgeLabel } from '@wunsch/core/recipe/correct';
import { massUnitFor } from '@wunsch/core/units/mass';
import { GatePanel, gatesIn, type Answer } from '../entry/GatePanel';
import { send, useApi } from '../parts/api';
import { useKept } from '../parts/draft';
import { Empty, Figure, Loading, Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { OnTheScale } from './OnTheScale';

/** One ingredient after the other on the scale: the right tub, the right grams, and what it comes to. */
export function WeighingPage() {
  const { id = '' } = useParams();
  const answer = useApi(`/api/recipe/weighings/${encodeURIComponent(id)}`);
  if (!answer.data) return <Loading error={answer.error} />;
  return answer.data.endedAt === null ? <Running run={answer.data} /> : <Ended run={answer.data} />;
}

function Ended({ run }: { run: WeighingView }) {
  const show = useShow();
  return (
    <Empty
      title={
        run.stepId === null
          ? `${run.name}: everything is back in its tub.`
          : `${run.name} is in the bowl${run.stepBatchCode === null ? '' : ` as ${run.stepBatchCode}`}.`
      }
      action={
        <a
          className="button button-main"
          href={run.stepBatchCode === null ? '/recipes' : `/station/grind?batch=${run.stepBatchCode}`}
        >
          {run.stepBatchCode === null ? 'To the recipes' : 'To the stones'}
        </a>
      }
    >
      {run.stepId === null
        ? 'Nothing was charged.'
        : `${show.mass(run.weighedG * 1000)} went in, ${run.figures.cocoaPct.toFixed(1)}\u00a0% cocoa.`}
    </Empty>
  );
}

function Running({ run }: { run: WeighingView }) {
  const { view, personId } = useHere();
  const unit = massUnitFor(
    Math.max(...run.lines.map(({ plannedG, weighedG }) => Math.max(plannedG, weighedG))) * 1000,
    view.settings.massSystem,
  );
  const show = useShow(unit);
  const navigate = useNavigate();
  const open = run.lines.find(({ state }) => state === 'open' || state === 'begun');
  const [chosen, setChosen] = useState<string | null>(null);
  const line =
    run.lines.find(({ ingredient }) => ingredient === chosen) ??
    run.lines.find(({ state }) => state === 'over') ??
    open ??
    null;
  const { busy, error, run: save, fail } = useSave();
  const [word, setWord, forgetWord] = useKept(`stop.weighing.${run.id}`, '');
  const over = run.lines.filter(({ state }) => state === 'over');
  const label = run.labelPct === null ? null : judgeLabel(run.labelPct, run.planned.cocoaPct);
  const url = `/api/recipe/weighings/${run.id}` as const;
  const act = (path: 'weighed' | 'undo' | 'put-back' | 'replan', body: object = {}): void => {
    if (personId === null) return fail(NOBODY);
    void save(() => send('POST', `${url}/${path}`, { personId, ...body }));
  };
  const finish = (overrides: Answer[] = []): void => {
    if (personId === null) return fail(NOBODY);
    void save(async () => {
      const { data } = await send('POST', `${url}/finish`, {
        personId,
        minutes: Math.min(600, Math.round((Date.now() - run.startedAt) / 60_000)),
        overrides,
      });
      forgetWord();
      await navigate(`/station/grind?batch=${data.step.batchCode ?? ''}`);
    });
  };
  const gates = gatesIn(error);
  const person = view.people.find(({ id }) => id === personId)?.name ?? 'you';
  return (
    <>
      <div className="mb-4 flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-3xl">
          Weighing {run.name}
          {run.batchCode !== null && ` into ${run.batchCode}`}
        </h1>
        <p className="text-sm text-soft">
          {run.person}, {show.moment(run.startedAt)}
          {run.machine !== null && `, for ${run.machine}`}
        </p>
      </div>
      <div className="grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="min-w-0">
          {over.length > 0 && (
            <section role="alert" className="mb-5 rounded-md bg-ripe-wash px-4 py-3">
              <p className="figure text-[1.35rem] leading-snug">
                {over.map((row) => `${row.name} is ${show.mass((row.weighedG - row.plannedG) * 1000)} over`).join('; ')}
                .
              </p>
              <p className="mt-1 text-sm">
                As planned for the rest it would be {run.planned.cocoaPct.toFixed(1)}&nbsp;% cocoa. Work out the rest
                again to keep the shares, or take the weighing back.
              </p>
              <div className="mt-3 flex flex-wrap gap-3">
                <button type="button" className="button button-main" disabled={busy} onClick={() => act('replan')}>
                  Work out the rest again
                </button>
                {over.map((row) => {
                  const last = row.weighed.at(-1);
                  return (
                    last && (
                      <button
                        key={row.ingredient}
                        type="button"
                        className="button"
                        disabled={busy}
                        onClick={() => act('undo', { recordId: last.recordId })}
                      >
                        Take {show.mass(last.massG * 1000)} back
                      </button>
                    )
                  );
                })}
              </div>
            </section>
          )}
          {line && line.state !== 'over' ? (
            <OnTheScale key={line.ingredient} line={line} run={run} unit={unit} />
          ) : (
            over.length === 0 && <p className="figure text-2xl">All of it is weighed.</p>
          )}
          {run.replanned.map((why, index) => (
            <p key={index} className="mt-3 text-sm text-soft">
              {why}
            </p>
          ))}
          {gates.length > 0 ? (
            <GatePanel word={word} setWord={setWord} gates={gates} person={person} busy={busy} goOn={finish} />
          ) : (
            <Refusal error={error} />
          )}
        </div>
        <div>
          <div className="grid grid-cols-2 gap-x-6 gap-y-4" aria-live="polite">
            <Figure
              small
              label="Weighed"
              value={show.mass(run.weighedG * 1000)}
              note={`of ${show.mass(run.plannedG * 1000)}`}
            />
            <Figure
              small
              label="It will be"
              value={`${run.planned.cocoaPct.toFixed(1)}\u00a0%`}
              note={
                label?.tone === 'watch' ? (
                  <strong className="text-crimson">the label says {run.labelPct}&nbsp;%</strong>
                ) : (
                  'cocoa, weighed as planned'
                )
              }
            />
          </div>
          <ol className="rows mt-4">
            {run.lines.map((row) => (
              <li key={row.ingredient} className="py-1">
                <button
                  type="button"
                  className="flex w-full items-center gap-3 rounded-md py-1 text-left"
                  aria-current={row === line ? 'step' : undefined}
                  onClick={() => setChosen(row.ingredient)}
                >
                  <span
                    className={`flex size-7 shrink-0 items-center justify-center rounded-full border-2 ${row.state === 'done' ? 'border-leaf text-leaf' : row.state === 'over' ? 'border-crimson text-crimson' : 'border-rule'}`}
                  >
                    {row.state === 'done' && <CheckIcon size={16} weight="bold" aria-label="weighed" />}
                    {row.state === 'over' && <span aria-label="too much">!</span>}
                  </span>
                  <span className={`min-w-0 flex-1 ${row === line ? 'font-bold' : ''}`}>
                    <span className="block truncate">{row.name}</span>
                    <span className="block text-sm font-normal text-soft">
                      {row.weighed.map(({ code, massG }) => `${code} ${show.mass(massG * 1000)}`).join(', ') ||
                        'not weighed yet'}
                    </span>
                  </span>
                  <span className="figure text-right text-lg whitespace-nowrap">{show.mass(row.plannedG * 1000)}</span>
                </button>
                {row.weighed.length > 0 && row.state !== 'over' && row === line && (
                  <button
                    type="button"
                    className="button button-quiet text-sm"
                    disabled={busy}
                    onClick={() => act('undo', { recordId: row.weighed.at(-1)?.recordId })}
                  >
                    Take the last weighing back
                  </button>
                )}
              </li>
            ))}
          </ol>
          <div className="mt-5 flex flex-wrap gap-3">
            <button
              type="button"
              className={`button ${open ? '' : 'button-main'}`}
              disabled={busy || run.weighedG <= 0}
              onClick={() => finish()}
            >
              {open ? 'Into the bowl as it is' : 'Into the bowl'}
            </button>
            <button type="button" className="button button-quiet" disabled={busy} onClick={() => act('put-back')}>
              Put everything back
            </button>
          </div>
          {open && run.weighedG > 0 && (
            <p className="mt-2 text-sm text-soft">
              As it is now: {run.figures.cocoaPct.toFixed(1)}&nbsp;% cocoa. What is missing can be added to the bowl
              later.
            </p>
          )}
        </div>
      </div>
    </>
  );
}
