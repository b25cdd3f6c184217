import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { TrialView } from '@wunsch/core/api/roast';
import { send, useApi } from '../parts/api';
import { newKey } from '../parts/draft';
import { Caution, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { ScoreRange } from '../parts/ScoreRange';
import { useHere, useShow } from '../parts/workshop';
import { RoastingNav } from './RoastingNav';
import { SelectBox } from '../parts/choice';

/** One trial: the plan as warmth over length, what the panel said, which roast to try next. */
export function TrialPage() {
  const { id = '' } = useParams();
  const answer = useApi(`/api/roast/trials/${encodeURIComponent(id)}`);
  if (!answer.data) return <Loading error={answer.error} />;
  return <Trial view={answer.data} />;
}

/** A load that ended so far from its plan says little about it, °C. */
const FAR_C = 4;

const roastName = (cell: number): string => `Roast ${cell + 1}`;

function Trial({ view }: { view: TrialView }) {
  const show = useShow();
  const { trial, verdict, lotCode, lotName, loads } = view;
  const roaster = useHere().view.machines.find(({ id }) => id === trial.roasterId);
  const next = verdict.next;
  const wanted = next === null ? undefined : trial.cells[next.cell];
  const waiting = loads.filter(({ cell, scores }) => cell === next?.cell && scores.length === 0);
  const made = loads.filter(({ scores }) => scores.length > 0).map(({ code }) => code);
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-4xl">{trial.name}</h1>
        <RoastingNav />
      </div>
      <p className="mt-1 text-lg text-soft">
        <Link className="code link" to={`/lot/${lotCode}`}>
          {lotCode}
        </Link>{' '}
        {lotName}; loads of {show.mass(trial.loadG * 1000)}
        {roaster && ` in ${roaster.name}`}, planned {show.day(view.at)} by {view.person}.
        {trial.note !== '' && ` ${trial.note}`}
      </p>
      <div className="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="min-w-0">
          <section aria-label="What the facts say" className="rounded-md bg-sunk px-5 py-4">
            <p className="figure text-[1.7rem] leading-tight">{verdict.sentence}</p>
            {next && wanted && (
              <p className="mt-2 text-lg">
                Next: {roastName(next.cell).toLowerCase()}, beans at {show.temp(wanted.peakC)} after {wanted.minutes}{' '}
                min. {next.why}{' '}
                {waiting.length > 0 ? (
                  <>
                    It is made already:{' '}
                    {waiting.map(({ code }) => (
                      <Link key={code} className="code link mr-1" to={`/roasting/load/${code}`}>
                        {code}
                      </Link>
                    ))}{' '}
                    waits to be tasted.
                  </>
                ) : (
                  <Link className="link" to={`/roasting/program/new?trial=${view.id}&cell=${next.cell}`}>
                    Write its program
                  </Link>
                )}
              </p>
            )}
          </section>
          <Section title="The plan" aside="expected score, 0 to 10, with the range that holds eight in ten">
            <Plan view={view} />
          </Section>
          {made.length > 1 && (
            <Link className="button mt-4" to={`/roasting/compare?codes=${made.slice(0, 6).join(',')}`}>
              Lay the tasted loads over one another
            </Link>
          )}
        </div>
        <aside aria-label="Add a load, and cautions">
          <AddLoad view={view} />
          <Link className="button mt-4" to={`/session/new?trial=${view.id}`}>
            Taste them blind
          </Link>
          <div className="mt-6 grid gap-3">
            <Caution>
              The panel tastes only what had its kill step or was made fit to eat another way: lightly roasted trials
              are no exception.
            </Caution>
          </div>
          <p className="mt-4 text-sm text-soft">
            A shallow hill over warmth and length is laid through the scores, held back by what panels give as a rule,
            so that three loads cannot shout. The chance is the share of 2,000 such hills on which that roast stands
            highest.
          </p>
        </aside>
      </div>
    </>
  );
}

/** Roasts by warmth (up) and length (across) where they make a grid; else one after another. */
function Plan({ view: { id, trial, verdict, loads } }: { view: TrialView }) {
  const show = useShow();
  const warmths = [...new Set(trial.cells.map(({ peakC }) => peakC))].sort((a, b) => b - a);
  const lengths = [...new Set(trial.cells.map(({ minutes }) => minutes))].sort((a, b) => a - b);
  const isGrid = warmths.length * lengths.length <= 16;
  const cellView = (cell: number) => {
    const result = verdict.cells[cell];
    if (!result) return null;
    const { expected, chanceBest } = result;
    const made = loads.filter((load) => load.cell === cell);
    const isNext = verdict.next?.cell === cell;
    return (
      <div className={`h-full rounded-md px-3 py-2.5 ${isNext ? 'bg-ripe-wash' : made.length > 0 ? 'bg-sheet' : ''}`}>
        <p className="flex items-baseline justify-between gap-2 text-sm text-soft">
          {roastName(cell)}
          {isNext && <strong className="text-ink">try next</strong>}
        </p>
        <p className="figure mt-1 text-3xl">{expected.mean.toFixed(1)}</p>
        <ScoreRange low={expected.low} high={expected.high} mean={expected.mean} />
        <p className="mt-1 text-sm text-soft">
          {expected.low.toFixed(1)} to {Math.min(10, expected.high).toFixed(1)}; {Math.round(100 * chanceBest)}&nbsp;%
          to be the best
        </p>
        <p className="text-sm">
          {made.length === 0 ? (
            <Link className="link" to={`/roasting/program/new?trial=${id}&cell=${cell}`}>
              Not made yet: write its program
            </Link>
          ) : (
            made.map(({ code, scores, endC }) => (
              <span key={code} className="mr-3 inline-block">
                <Link className="code link" to={`/roasting/load/${code}`}>
                  {code}
                </Link>{' '}
                {scores.length === 0
                  ? 'not tasted'
                  : `${(scores.reduce((sum, s) => sum + s, 0) / scores.length).toFixed(1)} from ${scores.length}`}
                {endC !== null && (
                  <span
                    className={
                      Math.abs(endC - (trial.cells[cell]?.peakC ?? endC)) > FAR_C ? 'text-crimson' : 'text-soft'
                    }
                  >
                    , came to {show.temp(endC)}
                  </span>
                )}
              </span>
            ))
          )}
        </p>
      </div>
    );
  };
  if (!isGrid)
    return (
      <ul className="grid gap-2 sm:grid-cols-3">
        {trial.cells.map(({ peakC, minutes }, cell) => (
          <li key={cell}>
            <p className="label">
              {show.temp(peakC)}, {minutes} min
            </p>
            {cellView(cell)}
          </li>
        ))}
      </ul>
    );
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[30rem] table-fixed border-separate border-spacing-1">
        <thead>
          <tr>
            <th className="label w-20 text-left font-normal">beans at, after</th>
            {lengths.map((minutes) => (
              <th key={minutes} className="label pb-1 text-left font-normal">
                <span className="figure text-xl text-ink">{minutes} min</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {warmths.map((peakC) => (
            <tr key={peakC} className="align-top">
              <th className="figure pt-3 text-left text-xl">{show.temp(peakC)}</th>
              {lengths.map((minutes) => {
                const cell = trial.cells.findIndex((row) => row.peakC === peakC && row.minutes === minutes);
                return <td key={minutes}>{cell >= 0 && cellView(cell)}</td>;
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function AddLoad({ view }: { view: TrialView }) {
  const show = useShow();
  const { personId } = useHere();
  const all = useApi(`/api/roast/loads?limit=120&lot=${view.lotCode}`).data?.loads;
  const { busy, error, run, fail } = useSave();
  const [code, setCode] = useState('');
  const [cell, setCell] = useState(view.verdict.next?.cell ?? 0);
  const [key, setKey] = useState(newKey);
  const known = new Set(view.loads.map((load) => load.code));
  const fitting = (all ?? []).filter((row) => !known.has(row.code));
  const add = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `/api/roast/trials/${view.id}/loads`, { personId, cell, code }, key)).then((done) => {
      if (!done) return;
      setCode('');
      setKey(newKey());
    });
  };
  return (
    <Section title="A load was made">
      <SelectBox
        label="Load of this lot"
        value={code}
        options={[
          ['', fitting.length === 0 ? 'none that is not in it yet' : 'choose'],
          ...fitting.map(
            (row) =>
              [
                row.code,
                `${row.code}, ${show.moment(row.at)}${row.endC === null ? '' : `, ended at ${show.temp(row.endC)}`}${
                  row.minutes === null ? '' : ` after ${Math.round(row.minutes)} min`
                }`,
              ] as const,
          ),
        ]}
        onChange={setCode}
      />
      <SelectBox
        className="mt-3"
        label="Which roast it was"
        value={String(cell)}
        options={view.trial.cells.map(
          ({ peakC, minutes }, index) =>
            [String(index), `${roastName(index)}: ${show.temp(peakC)}, ${minutes} min`] as const,
        )}
        onChange={(index) => setCell(Number(index))}
      />
      <button type="button" className="button mt-3" disabled={busy || code === ''} onClick={add}>
        Add it to the trial
      </button>
      <Refusal error={error} />
      <p className="mt-2 text-sm text-soft">
        The panel’s scores are added on the load’s own page, or come from the bars made of it.
      </p>
    </Section>
  );
}
