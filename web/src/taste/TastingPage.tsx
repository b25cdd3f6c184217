import { useEffect, useRef } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { SubjectView } from '@wunsch/core/api/taste';
import { getJson, send, useApi } from '../parts/api';
import { newKey, useDraft } from '../parts/draft';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber, wrongCount } from '../parts/number';
import { Caution, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { another, EMPTY_IMPRESSION, sheetOf, type Impression } from './impression';
import { SheetForm, StepChips, WarmWater, type StepAt } from './SheetForm';
import { keyOf, SubjectPicker } from './SubjectPicker';
import { TasteHead } from './TasteNav';

interface Bar {
  subject: SubjectView;
  /** Every impression that was kept, the newest last. */
  kept: Impression[];
}
interface Tasting {
  tastingId: string | null;
  bars: Bar[];
  /** Which bar is on the tongue; null: none is. */
  at: number | null;
  now: Impression;
  step: StepAt;
  key: string;
  mood: string;
  food: '' | 'before' | 'after';
  eaten: string;
}
const begin = (): Tasting => ({
  tastingId: null,
  bars: [],
  at: null,
  now: EMPTY_IMPRESSION,
  step: 0,
  key: newKey(),
  mood: '',
  food: '',
  eaten: '1',
});

/** A guided tasting: one bar after another, forth and back; every look is kept. */
export function TastingPage() {
  const { personId } = useHere();
  const show = useShow();
  const navigate = useNavigate();
  const [query, setQuery] = useSearchParams();
  const { data: vocabulary } = useApi('/api/taste/words');
  const draft = useDraft<Tasting>('tasting', begin);
  const { busy, error, run, fail } = useSave();
  const { tastingId, bars, at, now, step, mood, food, eaten } = draft.value;
  const set = (next: Partial<Tasting>): void => draft.set((before) => ({ ...before, ...next }));
  const words = vocabulary?.words.map(({ word }) => word) ?? [];
  const bar = at === null ? undefined : bars[at];

  const taste = (subject: SubjectView): void =>
    draft.set((before) => {
      const known = before.bars.findIndex((row) => keyOf(row.subject) === keyOf(subject));
      return known >= 0
        ? back(before, known)
        : {
            ...before,
            bars: [...before.bars, { subject, kept: [] }],
            at: before.bars.length,
            now: EMPTY_IMPRESSION,
            step: 0,
            key: newKey(),
            // Bars are eaten where there are bars.
            eaten: subject.pieces > 0 ? '1' : '0',
          };
    });
  // A link from a bench or a page names what is to be tasted.
  const asked = query.toString();
  const answered = useRef('');
  useEffect(() => {
    if (asked === '' || answered.current === asked) return;
    answered.current = asked;
    void getJson(`/api/taste/subject?${asked}`).then(
      (subject) => {
        setQuery({}, { replace: true });
        taste(subject);
      },
      () => setQuery({}, { replace: true }),
    );
    // The draft sets itself; only what was asked for counts.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [asked]);

  // Bars are eaten once, at the first look.
  const pieces = eaten.trim() === '' || (bar?.kept.length ?? 0) > 0 ? 0 : readNumber(eaten);
  const wrongPieces = pieces === 0 ? undefined : wrongCount(eaten);
  const keep = (): void => {
    if (!bar || at === null) return;
    if (personId === null) return fail(NOBODY);
    if (now.overall === null) {
      set({ step: 3 });
      return fail('Say how it is on the whole: one press on the scale.');
    }
    if (pieces === null || wrongPieces !== undefined) return fail('Look again at the bars eaten.');
    const sheet = {
      ...sheetOf(now),
      tastingId,
      subject: bar.subject.subject,
      place: at + 1,
      visit: bar.kept.length + 1,
      mood,
      food: food === '' ? null : food,
    };
    void run(async () => {
      const { data } = await send('POST', '/api/taste/sheets', { personId, sheet, eaten: pieces }, draft.value.key);
      draft.set((before) => ({
        ...before,
        tastingId: data.tastingId,
        bars: before.bars.map((row, i) => (i === at ? { ...row, kept: [...row.kept, now] } : row)),
        at: null,
        now: EMPTY_IMPRESSION,
        step: 0,
        key: newKey(),
      }));
    });
  };
  const done = bars.filter(({ kept }) => kept.length > 0);
  const end = (): void => {
    draft.clear();
    void navigate('/tastings');
  };
  return (
    <div className="mx-auto max-w-4xl">
      {bar ? (
        <>
          <div className="flex flex-wrap items-baseline justify-between gap-x-4">
            <h1 className="text-3xl">
              {bar.subject.code !== null && <span className="code">{bar.subject.code}</span>} {bar.subject.name}
            </h1>
            <span className="text-soft">
              {bar.kept.length > 0 ? `look ${bar.kept.length + 1}` : `bar ${(at ?? 0) + 1} of this tasting`}
            </span>
          </div>
          {bar.subject.allergens.length > 0 && (
            <p className="font-semibold">Before anybody eats: it has {bar.subject.allergens.join(', ')}.</p>
          )}
          {bar.subject.caution !== null && <Caution>{bar.subject.caution}</Caution>}
          <div className="mt-3 mb-4">
            <StepChips at={step} go={(next) => set({ step: next })} />
          </div>
          <SheetForm
            step={step}
            value={now}
            words={words}
            before={bar.kept.at(-1)}
            onChange={(change) => draft.set((row) => ({ ...row, now: change(row.now) }))}
          />
          <div className="sticky bottom-12 z-10 mt-5 flex flex-wrap items-center gap-3 border-t border-rule bg-paper py-3">
            {step < 3 ? (
              <button type="button" className="button button-main" onClick={() => set({ step: (step + 1) as StepAt })}>
                {['Break it', 'Let it melt', 'Sum it up'][step]}
              </button>
            ) : (
              <button type="button" className="button button-main" disabled={busy} onClick={keep}>
                {bar.kept.length > 0 ? 'Keep this look' : 'Keep it'}
              </button>
            )}
            <WarmWater value={now} onChange={(change) => draft.set((row) => ({ ...row, now: change(row.now) }))} />
            {bar.subject.pieces > 0 && bar.kept.length === 0 && step === 3 && (
              <NumberBox
                className="w-28"
                label="Bars eaten"
                value={eaten}
                problem={wrongPieces}
                onChange={(text) => set({ eaten: text })}
              />
            )}
            <button
              type="button"
              className="button button-quiet ml-auto"
              onClick={() =>
                draft.set((row) => ({
                  ...row,
                  bars: row.bars.filter(({ kept }, i) => i !== row.at || kept.length > 0),
                  at: null,
                  now: EMPTY_IMPRESSION,
                }))
              }
            >
              Put it aside
            </button>
          </div>
          <Refusal error={error} />
        </>
      ) : (
        <>
          <TasteHead title="A guided tasting">
            Break, look, snap, smell, melt slowly; warm water and a pause; then the next one, or back to an earlier one.
          </TasteHead>
          {done.length > 0 && (
            <Section title="So far" id="so-far">
              <ul className="rows">
                {done.map(({ subject, kept }) => {
                  const [last, before] = [kept.at(-1), kept.at(-2)];
                  return (
                    <li key={keyOf(subject)} className="flex flex-wrap items-center gap-x-4 py-2">
                      <span className="min-w-0 flex-1">
                        {subject.code !== null && <span className="code">{subject.code}</span>} {subject.name}
                        {subject.earlier.length > 0 && (
                          <span className="block text-sm text-soft">
                            Other days:{' '}
                            {subject.earlier
                              .map(({ at: when, palate, overall }) => `${overall} on ${show.day(when)}, ${palate}`)
                              .join('; ')}
                          </span>
                        )}
                        {before && (
                          <span className="block text-sm text-soft">
                            {before.overall === last?.overall
                              ? `still ${before.overall ?? '–'} on going back`
                              : `was ${before.overall ?? '–'} before`}
                          </span>
                        )}
                      </span>
                      <span className="figure text-2xl">{last?.overall}</span>
                      <button
                        type="button"
                        className="button"
                        onClick={() =>
                          draft.set((row) =>
                            back(
                              row,
                              row.bars.findIndex((b) => keyOf(b.subject) === keyOf(subject)),
                            ),
                          )
                        }
                      >
                        Go back to it
                      </button>
                    </li>
                  );
                })}
              </ul>
              <button type="button" className="button button-main mt-3" onClick={end}>
                That was all
              </button>
            </Section>
          )}
          <Section title={done.length > 0 ? 'The next one' : 'What is tasted first'} id="next-one">
            <SubjectPicker label="Find it" chosen={done.map(({ subject }) => keyOf(subject))} choose={taste} />
          </Section>
          <Section title="Who tastes, and when" id="when">
            <div className="grid gap-4 md:grid-cols-2">
              <Box
                label="Mood, cold, tired, in a hurry"
                value={mood}
                onChange={(text) => set({ mood: text.slice(0, 60) })}
              />
              <Chips
                legend="Before or after food"
                options={[
                  ['before', 'Before food'],
                  ['after', 'After food'],
                ]}
                chosen={[food]}
                choose={([next = '']) => set({ food: next === food ? '' : next })}
              />
            </div>
          </Section>
          <p className="mt-6 text-sm text-soft">
            With guests or without knowing which is which:{' '}
            <Link className="link" to="/session/new">
              a blind session
            </Link>
            .
          </p>
        </>
      )}
    </div>
  );
}

/** Back to a bar that was tasted: both looks are kept. */
function back(before: Tasting, at: number): Tasting {
  const last = before.bars[at]?.kept.at(-1);
  return { ...before, at, now: last ? another(last) : EMPTY_IMPRESSION, step: last ? 2 : 0, key: newKey() };
}
