import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { TrialView } from '@wunsch/core/api/trials';
import { nearestArm } from '@wunsch/core/trials/judge';
import { FACTORS } from '@wunsch/core/trials/records';
import { send, useApi } from '../parts/api';
import { SelectBox } from '../parts/choice';
import { Box } from '../parts/fields';
import { Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { ScoreRange } from '../parts/ScoreRange';
import { useHere, useShow } from '../parts/workshop';
import { STATE_WORDS } from '../taste/SessionsPage';
import { TasteNav } from '../taste/TasteNav';
import { Overrule } from '../parts/Overrule';

/** One trial: what its facts say so far, what to make next, and what was made of each arm. */
export function TrialPage() {
  const { id = '' } = useParams();
  const path = `/api/trials/${encodeURIComponent(id)}` as const;
  const answer = useApi(path);
  if (!answer.data) return <Loading error={answer.error} />;
  return <Trial key={answer.data.id} view={answer.data} path={path} changed={() => void answer.mutate()} />;
}

function Trial({ view, path, changed }: { view: TrialView; path: `/api/trials/${string}`; changed: () => void }) {
  const show = useShow();
  const { personId } = useHere();
  const { busy, error, run, fail } = useSave();
  const { trial, arms, made, verdict, sessions } = view;
  const next = verdict.next;
  const [code, setCode] = useState('');
  const [arm, setArm] = useState(String(next?.arm ?? 0));
  const add = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      await send('POST', `${path}/made`, { personId, arm: Number(arm), code: code.trim().toUpperCase() });
      setCode('');
      changed();
    });
  };
  const waiting = made.filter(({ scores }) => scores.length === 0);
  const reallyWords = (values: (number | string | null)[]): string =>
    values
      .map((value, i) => {
        const factor = trial.factors[i]?.factor;
        if (factor === undefined || value === null) return 'not logged';
        if (typeof value === 'string') return value;
        return FACTORS[factor].unit === '°C' ? show.temp(value) : `${value.toFixed(1)} ${FACTORS[factor].unit}`;
      })
      .join(', ');
  return (
    <>
      <TasteNav />
      <h1 className="text-4xl">{trial.name}</h1>
      <p className="mt-1 text-lg text-soft">
        {trial.factors.map(({ factor }) => FACTORS[factor].name).join(', ')}; planned {show.day(view.at)} by{' '}
        {view.person}.{trial.question !== '' && ` ${trial.question}`}
      </p>
      <section aria-label="What the facts say" className="mt-4 rounded-md bg-sunk px-5 py-4">
        <p className="figure text-[1.7rem] leading-tight">{verdict.sentence}</p>
        <Overrule judged="trial" subject={view.id} said={verdict.sentence} />
        {next ? (
          <p className="mt-2 text-lg">
            Make next: <strong>{arms[next.arm]}</strong>. {next.why}{' '}
            {waiting.some((row) => row.arm === next.arm) &&
              `It is made already: ${waiting
                .filter((row) => row.arm === next.arm)
                .map((row) => row.code)
                .join(', ')} waits to be tasted.`}
          </p>
        ) : (
          <p className="mt-2 text-lg">More of it would change little.</p>
        )}
      </section>
      <div className="mt-6 grid gap-10 lg:grid-cols-[minmax(0,1fr)_18rem]">
        <Section title="The plan" id="plan" aside="expected score, 0 to 10, with eight in ten">
          <ol className="rows">
            {arms.map((words, index) => {
              const result = verdict.arms[index];
              const own = made.filter((row) => row.arm === index);
              if (!result) return null;
              const { expected, chanceBest } = result;
              return (
                <li
                  key={index}
                  className={`grid gap-x-6 py-3 md:grid-cols-[minmax(0,1fr)_14rem] ${next?.arm === index ? 'bg-ripe-wash px-3' : ''}`}
                >
                  <span>
                    <span className="figure text-xl">{words}</span>
                    {next?.arm === index && <strong className="ml-3 text-sm">make this next</strong>}
                    {own.map((row) => (
                      <span key={row.code} className="block text-sm">
                        <Link className="code link" to={row.link}>
                          {row.code}
                        </Link>{' '}
                        {row.scores.length === 0
                          ? 'not tasted'
                          : `${(row.scores.reduce((a, b) => a + b, 0) / row.scores.length).toFixed(1)} from ${row.scores.length}`}
                        {/* Nearer to another arm than to its own it says little about it. */}
                        <span
                          className={
                            nearestArm(trial, row.arm, row.really) !== row.arm
                              ? 'font-semibold text-crimson'
                              : 'text-soft'
                          }
                        >
                          , really {reallyWords(row.really)}
                        </span>{' '}
                        <button
                          type="button"
                          className="link text-soft"
                          disabled={busy}
                          onClick={() =>
                            void run(async () => {
                              await send('DELETE', `${path}/made/${encodeURIComponent(row.code)}`);
                              changed();
                            })
                          }
                        >
                          not this arm
                        </button>
                      </span>
                    ))}
                    {own.length === 0 && <span className="block text-sm text-soft">not made yet</span>}
                  </span>
                  <span>
                    <span className="flex items-baseline justify-between">
                      <span className="figure text-2xl">{expected.mean.toFixed(1)}</span>
                      <span className="text-sm text-soft">
                        {expected.low.toFixed(1)} to {Math.min(10, expected.high).toFixed(1)};{' '}
                        {Math.round(100 * chanceBest)}&nbsp;% the best
                      </span>
                    </span>
                    <ScoreRange low={expected.low} high={expected.high} mean={expected.mean} />
                  </span>
                </li>
              );
            })}
          </ol>
        </Section>
        <aside aria-label="Add what was made, and its panel">
          <Section title="Something was made" id="made">
            <Box label="Code of the batch or load" value={code} onChange={setCode} placeholder="B041" onEnter={add} />
            <SelectBox
              className="mt-2"
              label="It was"
              value={arm}
              options={arms.map((words, i) => [String(i), words] as const)}
              onChange={setArm}
            />
            <button type="button" className="button mt-3" disabled={busy || code.trim() === ''} onClick={add}>
              Add it to the trial
            </button>
            <Refusal error={error} />
          </Section>
          <Section title="Its panel" id="panel">
            {sessions.map((row) => (
              <p key={row.id}>
                <Link className="link" to={`/session/${row.id}`}>
                  {row.name}
                </Link>
                , {STATE_WORDS[row.state as keyof typeof STATE_WORDS]}
              </p>
            ))}
            <Link className="button mt-2" to={`/session/new?trial=${view.id}`}>
              Taste them blind
            </Link>
            <p className="mt-2 text-sm text-soft">
              What an opened session of this trial says goes before scores from the bench.
            </p>
          </Section>
        </aside>
      </div>
    </>
  );
}
