import { Link, useParams } from 'react-router';
import type { SessionView } from '@wunsch/core/api/taste';
import { send, useApi } from '../parts/api';
import { Caution, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { ScoreRange } from '../parts/ScoreRange';
import { useHere, useShow } from '../parts/workshop';
import { STATE_WORDS } from './SessionsPage';
import { TasteNav } from './TasteNav';
import { Overrule } from '../parts/Overrule';

/** A blind session for its host: what to pour where, who is done, and, once it is opened, the answer. */
export function SessionPage() {
  const { id = '' } = useParams();
  const path = `/api/taste/sessions/${encodeURIComponent(id)}` as const;
  const answer = useApi(path, 3000);
  const { personId } = useHere();
  const show = useShow();
  const { busy, error, run, fail } = useSave();
  if (!answer.data) return <Loading error={answer.error} />;
  const view = answer.data;
  const { session, state, seats, result } = view;
  const turn = (next: 'closed' | 'opened'): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      await send('POST', `${path}/state`, { personId, state: next });
      await answer.mutate();
    });
  };
  const sitting = seats.filter(({ taster }) => taster !== '');
  const done = sitting.filter((seat) => seat.done === session.bars.length).length;
  const address = `${window.location.origin}/guest/${view.id}`;
  const local = ['localhost', '127.0.0.1', '[::1]'].includes(window.location.hostname);
  return (
    <>
      <TasteNav />
      <h1 className="text-4xl">{session.name}</h1>
      <p className="mt-1 text-lg text-soft">
        {show.day(view.at)}, {view.host}; {STATE_WORDS[state]}.{' '}
        {session.trialId !== null && <OfTrial trialId={session.trialId} />}
      </p>
      {result && <Result view={view} result={result} />}
      {view.allergens.length > 0 && (
        <p className="mt-3 font-semibold">Before anybody eats: among these there is {view.allergens.join(', ')}.</p>
      )}
      {view.cautions.map((words) => (
        <Caution key={words}>{words}</Caution>
      ))}
      {state !== 'opened' && (
        <div className="mt-5 grid gap-8 md:grid-cols-[minmax(0,26rem)_15rem]">
          <div>
            <p className="figure text-3xl">
              {done} of {session.tasters} done
              {sitting.length < session.tasters && (
                <span className="text-xl text-soft">, {session.tasters - sitting.length} seats free</span>
              )}
            </p>
            <div className="mt-3 flex flex-wrap gap-3">
              {state === 'open' ? (
                <button type="button" className="button button-main" disabled={busy} onClick={() => turn('closed')}>
                  Close the tasting
                </button>
              ) : (
                <button type="button" className="button button-main" disabled={busy} onClick={() => turn('opened')}>
                  Open it: the answer
                </button>
              )}
              <a className="button" href={`${path}/codes`} target="_blank" rel="noreferrer">
                Codes to cut out
              </a>
            </div>
            <Refusal error={error} />
          </div>
          {state === 'open' && (
            <div>
              <img
                className="w-44 rounded-md bg-white p-2"
                src={`${path}/qr`}
                alt="QR code with the address for tasters"
              />
              <p className="mt-1 text-sm break-all">
                <a className="link" href={address} target="_blank" rel="noreferrer">
                  {address}
                </a>
              </p>
              {local && (
                <p className="text-sm text-soft">
                  Phones reach this only when the server is started for the network (HOST=0.0.0.0) and opened here by
                  its address in it.
                </p>
              )}
            </div>
          )}
        </div>
      )}
      <Section title="Pour sheet" id="pour" aside="for the host alone: it names the bars">
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Pour sheet">
          <table className="w-full min-w-[34rem]">
            <thead className="label text-left">
              <tr>
                <th className="font-normal">Seat</th>
                <th className="font-normal">Serve, in this order</th>
                <th className="text-right font-normal">Done</th>
              </tr>
            </thead>
            <tbody>
              {seats.map(({ seat, taster, order, done: eaten }) => (
                <tr key={seat} className="border-t border-rule align-top">
                  <td className="py-1.5">
                    <span className="figure">{seat + 1}</span> {taster}
                  </td>
                  <td className="py-1.5">
                    {order.map((bar) => (
                      <span key={bar} className="mr-5 whitespace-nowrap">
                        <span className="code">{view.codes[bar]}</span>{' '}
                        <span className="text-sm text-soft">{session.bars[bar]?.name}</span>
                      </span>
                    ))}
                  </td>
                  <td className="figure py-1.5 text-right">
                    {taster === '' ? '–' : `${eaten} of ${session.bars.length}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </Section>
    </>
  );
}

/** The trial that a session is the panel of. */
function OfTrial({ trialId }: { trialId: string }) {
  const { data } = useApi(`/api/trials/${encodeURIComponent(trialId)}`);
  if (!data) return null;
  return (
    <>
      Panel of the trial{' '}
      <Link className="link" to={data.link}>
        {data.trial.name}
      </Link>
      .
    </>
  );
}

/** The answer first; then bars with their intervals, what standing first did, words. */
function Result({ view, result }: { view: SessionView; result: NonNullable<SessionView['result']> }) {
  const { verdict, words, scales } = result;
  const { session, codes } = view;
  const placeOf = (bar: string): number => session.bars.findIndex(({ name }) => name === bar);
  const columns = [...new Set(scales.flatMap(({ means }) => Object.keys(means)))];
  return (
    <>
      <section aria-label="The answer" className="mt-4 rounded-md bg-sunk px-5 py-4">
        <p className="figure text-[1.7rem] leading-tight">{verdict.sentence}</p>
        <Overrule judged="session" subject={view.id} said={verdict.sentence} />
        <p className="mt-2">
          {verdict.moreTasters === 0
            ? 'More tasting would change nothing of that.'
            : verdict.moreTasters === null
              ? 'More people of this kind would hardly tell the first two apart.'
              : `About ${verdict.moreTasters} more ${verdict.moreTasters === 1 ? 'taster' : 'tasters'} like these would tell the first two apart.`}{' '}
          {verdict.first &&
            (verdict.first.low > 0 || verdict.first.high < 0
              ? `What stands first gets ${Math.abs(verdict.first.value).toFixed(1)} points ${verdict.first.value > 0 ? 'more' : 'less'} here: that is taken out.`
              : 'What stood first was scored like the rest.')}{' '}
          {verdict.later &&
            (verdict.later.high < 0 || verdict.later.low > 0) &&
            `From place to place scores ${verdict.later.value < 0 ? 'fall' : 'rise'} by ${Math.abs(verdict.later.value).toFixed(1)}: that too.`}
        </p>
      </section>
      {verdict.bars.length > 0 && (
        <Section title="Bars" id="bars" aside="mean over the panel, with nine in ten">
          <ul className="rows">
            {verdict.bars.map(({ bar, mean, low, high, n, expected }) => {
              const place = placeOf(bar);
              return (
                <li key={bar} className="grid gap-x-6 py-3 md:grid-cols-[minmax(0,1fr)_18rem]">
                  <span>
                    <span className="code">{codes[place]}</span> <strong>{bar}</strong>
                    {(words[place]?.words.length ?? 0) > 0 && (
                      <span className="block text-sm">{words[place]?.words.join(', ')}</span>
                    )}
                    <span className="block text-sm text-soft">
                      {n} {n === 1 ? 'score' : 'scores'}; tasted again, expect {expected.toFixed(1)}
                    </span>
                  </span>
                  <span>
                    <span className="flex items-baseline justify-between">
                      <span className="figure text-3xl">{mean.toFixed(1)}</span>
                      <span className="text-sm text-soft">
                        {low.toFixed(1)} to {high.toFixed(1)}
                      </span>
                    </span>
                    <ScoreRange low={low} high={high} mean={mean} />
                  </span>
                </li>
              );
            })}
          </ul>
          {columns.length > 0 && (
            <div className="mt-2 overflow-x-auto" tabIndex={0} role="region" aria-label="Scales by bar">
              <table className="w-full min-w-[36rem] text-sm">
                <thead className="label text-left">
                  <tr>
                    <th className="font-normal">Mean of</th>
                    {columns.map((scale) => (
                      <th key={scale} className="text-right font-normal">
                        {scale}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {scales.map(({ code, means }, i) => (
                    <tr key={code} className="border-t border-rule">
                      <td className="py-1">{session.bars[i]?.name}</td>
                      {columns.map((scale) => (
                        <td key={scale} className="figure text-right">
                          {means[scale]?.toFixed(1) ?? '–'}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </Section>
      )}
      <p className="mt-2 max-w-3xl text-sm text-soft">
        Bars are compared within each taster’s own round, so that who scores high or has a tired day does not matter.
        How each one tastes is shown to nobody but themselves, on their own phone and under Tasting. Bars that were
        eaten are booked as samples, under{' '}
        <Link className="link" to="/store">
          Store
        </Link>
        .
      </p>
    </>
  );
}
