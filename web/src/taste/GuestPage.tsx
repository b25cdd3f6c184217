import { useEffect, useState } from 'react';
import { useParams } from 'react-router';
import type { GuestView, SeatView } from '@wunsch/core/api/taste';
import { ApiError, send, useApi } from '../parts/api';
import { newKey, useDraft, useKept } from '../parts/draft';
import { Box } from '../parts/fields';
import { Loading, Refusal } from '../parts/pieces';
import { useSave } from '../parts/save';
import { another, EMPTY_IMPRESSION, sheetOf, type Impression } from './impression';
import { Palate } from './Palate';
import { SheetForm, StepChips, WarmWater, type StepAt } from './SheetForm';

interface Waiting {
  key: string;
  code: string;
  sheet: ReturnType<typeof sheetOf>;
}
interface Mine {
  seat: SeatView | null;
  /** Every look at a code, the newest last. */
  kept: Record<string, Impression[]>;
  /** What could not be sent yet. */
  waiting: Waiting[];
  /** What was not taken, and why; an older draft has none. */
  refused?: { code: string; why: string }[];
  at: string | null;
  now: Impression;
  step: StepAt;
}
const begin = (): Mine => ({
  seat: null,
  kept: {},
  waiting: [],
  refused: [],
  at: null,
  now: EMPTY_IMPRESSION,
  step: 0,
});
const AGAIN_MS = 4000;

/** A taster's phone: no account, codes only; what cannot be sent waits here. */
export function GuestPage() {
  const { id = '' } = useParams();
  const path = `/api/taste/guest/${encodeURIComponent(id)}` as const;
  const answer = useApi(path, 5000);
  const [last, setLast] = useState<GuestView | undefined>();
  if (answer.data && answer.data !== last) setLast(answer.data);
  // Out of reach of the server one tastes on.
  const view = answer.data ?? last;
  useEffect(() => {
    if (view) document.title = `${view.workshop}: ${view.name}`;
  }, [view]);
  return (
    <main className="mx-auto min-h-dvh max-w-2xl p-4 pb-28">
      {view ? <Taster path={path} view={view} /> : <Loading error={answer.error} />}
    </main>
  );
}

function Taster({ path, view }: { path: `/api/taste/guest/${string}`; view: GuestView }) {
  const draft = useDraft<Mine>(`guest.${view.id}`, begin);
  const { busy, error, run, fail } = useSave();
  const [name, setName] = useKept(`guest.${view.id}.name`, '');
  const { seat, kept, waiting, at, now, step } = draft.value;
  const set = (next: Partial<Mine>): void => draft.set((row) => ({ ...row, ...next }));
  const after = useApi(seat && view.state === 'opened' ? `${path}/seats/${encodeURIComponent(seat.seat)}` : null);
  const first = waiting[0];
  useEffect(() => {
    if (!first || seat === null) return;
    let gone = false;
    const attempt = (): void =>
      void send('POST', `${path}/seats/${seat.seat}/sheets`, { code: first.code, ...first.sheet }, first.key).then(
        () => !gone && draft.set((row) => ({ ...row, waiting: row.waiting.filter(({ key }) => key !== first.key) })),
        (reason: unknown) => {
          // Refused for good it is not sent for ever; out of reach it waits.
          if (!gone && reason instanceof ApiError && reason.problem.status >= 400 && reason.problem.status < 500)
            draft.set((row) => ({
              ...row,
              waiting: row.waiting.filter(({ key }) => key !== first.key),
              refused: [...(row.refused ?? []), { code: first.code, why: reason.problem.detail }],
            }));
        },
      );
    attempt();
    const timer = setInterval(attempt, AGAIN_MS);
    return () => {
      gone = true;
      clearInterval(timer);
    };
    // One by one, by its key; the draft sets itself.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [first?.key, seat?.seat, path]);

  const head = (
    <header className="mb-4">
      <p className="text-soft">{view.workshop}</p>
      <h1 className="text-3xl">{view.question === '' ? 'Taste these' : view.question}</h1>
      {view.allergens.length > 0 && (
        <p className="mt-2 rounded-md bg-ripe-wash px-3 py-2 font-semibold">
          Before you eat: among these there is {view.allergens.join(', ')}.
        </p>
      )}
    </header>
  );
  if (seat === null)
    return (
      <>
        {head}
        {view.state === 'open' ? (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void run(async () => {
                const { data } = await send('POST', `${path}/seats`, { taster: name });
                set({ seat: data });
              });
            }}
          >
            <Box label="Your name, so that two phones are not one palate" value={name} onChange={setName} />
            <button type="submit" className="button button-main mt-3" disabled={busy || name.trim() === ''}>
              Sit down
            </button>
            <Refusal error={error} kept={false} />
          </form>
        ) : (
          <p className="text-lg">This session is closed.</p>
        )}
      </>
    );
  if (view.state === 'opened')
    return (
      <>
        {head}
        <ul className="rows">
          {seat.codes.map((code, i) => (
            <li key={code} className="flex items-center gap-4 py-3">
              <span className="code w-12">{code}</span>
              <span className="flex-1 text-lg">{after.data?.names?.[i]}</span>
              <span className="figure text-2xl">{kept[code]?.at(-1)?.overall ?? '–'}</span>
            </li>
          ))}
        </ul>
        {after.data?.palate && <Palate palate={after.data.palate} />}
        <p className="mt-4">Thank you, {seat.taster}.</p>
      </>
    );
  const notTaken = (draft.value.refused ?? []).map(({ code, why }, i) => (
    <p key={i} role="alert" className="mt-3 rounded-md bg-crimson-wash px-3 py-2 text-sm">
      <span className="code">{code}</span> was not taken: {why} It is still on this phone; tell your host.
    </p>
  ));
  const unsent =
    waiting.length > 0 ? (
      <p role="status" className="mt-3 rounded-md bg-sunk px-3 py-2 text-sm">
        {waiting.length === 1 ? 'One sheet waits' : `${waiting.length} sheets wait`} to be sent: they are kept on this
        phone.
      </p>
    ) : null;
  if (at === null) {
    const next = seat.codes.find((code) => !kept[code]);
    return (
      <>
        {head}
        <p className="text-lg">
          {next !== undefined ? (
            <>
              Take <span className="code text-2xl">{next}</span>.
            </>
          ) : (
            'All are tasted. Go back to any, if you like.'
          )}
        </p>
        {view.state === 'closed' && <p className="font-semibold">The session is closed: nothing is taken any more.</p>}
        <ul className="rows mt-3">
          {seat.codes.map((code) => {
            const looks = kept[code];
            return (
              <li key={code} className="flex items-center gap-4 py-2.5">
                <span className="code w-12 text-xl">{code}</span>
                <span className="figure flex-1 text-2xl">{looks?.at(-1)?.overall ?? ''}</span>
                <button
                  type="button"
                  className={code === next ? 'button button-main' : 'button'}
                  aria-label={`${looks ? 'Go back to it' : 'Taste it'}, ${code}`}
                  disabled={view.state !== 'open'}
                  onClick={() =>
                    set({
                      at: code,
                      now: looks?.at(-1) ? another(looks.at(-1) ?? EMPTY_IMPRESSION) : EMPTY_IMPRESSION,
                      step: looks ? 3 : 0,
                    })
                  }
                >
                  {looks ? 'Go back to it' : 'Taste it'}
                </button>
              </li>
            );
          })}
        </ul>
        {unsent}
        {notTaken}
        <p className="mt-4 text-sm text-soft">
          Warm water and a minute between two. Nobody sees scores before all are done.
        </p>
      </>
    );
  }
  const keep = (): void => {
    if (now.overall === null) {
      set({ step: 3 });
      return fail('Say how it is on the whole: one press on the scale.');
    }
    draft.set((row) => ({
      ...row,
      kept: { ...row.kept, [at]: [...(row.kept[at] ?? []), now] },
      waiting: [...row.waiting, { key: newKey(), code: at, sheet: sheetOf(now) }],
      at: null,
      now: EMPTY_IMPRESSION,
      step: 0,
    }));
  };
  return (
    <>
      <div className="mb-3 flex items-baseline justify-between">
        <h1 className="code text-4xl">{at}</h1>
        <button type="button" className="button button-quiet" onClick={() => set({ at: null, now: EMPTY_IMPRESSION })}>
          Not this one yet
        </button>
      </div>
      <div className="mb-4">
        <StepChips at={step} go={(to) => set({ step: to })} />
      </div>
      <SheetForm
        step={step}
        value={now}
        words={view.words}
        scales={view.scales}
        before={kept[at]?.at(-1)}
        onChange={(change) => draft.set((row) => ({ ...row, now: change(row.now) }))}
      />
      <div className="fixed inset-x-0 bottom-0 border-t border-rule bg-paper px-4 py-3">
        <div className="mx-auto flex max-w-2xl flex-wrap items-center gap-3">
          {step < 3 ? (
            <button type="button" className="button button-main" onClick={() => set({ step: (step + 1) as StepAt })}>
              {['Break it', 'Let it melt', 'Sum it up'][step]}
            </button>
          ) : (
            <button type="button" className="button button-main" onClick={keep}>
              Keep it
            </button>
          )}
          <WarmWater value={now} onChange={(change) => draft.set((row) => ({ ...row, now: change(row.now) }))} />
        </div>
      </div>
      <Refusal error={error} />
      {unsent}
    </>
  );
}
