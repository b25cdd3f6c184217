import { lazy, Suspense, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { thickness } from '@wunsch/core/temper/crystal';
import { BAR_WORDS, LESSONS, type Lesson } from '@wunsch/core/temper/lessons';
import {
  lessonWith,
  MARBLE_C,
  OWN_BOWL_LIMITS,
  SEED_SHARES,
  USUAL_BOWL_KG,
  type OwnBowl,
  type PracticeEnd,
} from '@wunsch/core/temper/practice';
import type { SeedKind } from '@wunsch/core/temper/crystal';
import { Chips, NumberBox } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { Caution } from '../parts/pieces';
import { LabelledSlider } from '../parts/LabelledSlider';
import { useHere, useShow } from '../parts/workshop';
import { DrawnBar } from './DrawnBar';
import { ReplayedPour } from './ReplayedPour';
import { useBowl } from './useBowl';
import type { Controls } from './worker';

const TemperChart = lazy(() => import('../charts/TemperChart'));

const AROUND = [
  ['bath', 'Water bath'],
  ['marble', 'Marble'],
  ['room', 'The room'],
] as const;
const STIRS = [
  ['0', 'Nobody stirs'],
  ['1', 'Stir'],
  ['2', 'Stir hard'],
] as const;
const SPEEDS = [
  ['1', '1×'],
  ['20', '20×'],
  ['60', '60×'],
] as const;
const SEED_WORDS: Readonly<Record<SeedKind, string>> = { chocolate: 'Seed', silk: 'Silk' };
/** Where their sliders stand at first. */
const USUAL_SHARES: Readonly<Record<SeedKind, number>> = { chocolate: 0.05, silk: 0.01 };

const FIRST_LESSON: Lesson = LESSONS[0] as Lesson;

/** A place to temper without wasting chocolate: a model for learning; nothing of it touches the book. */
export function PractisePage() {
  const [lessonId, setLessonId] = useState<string>(LESSONS[0]?.id ?? '');
  const { personId } = useHere();
  const lesson = LESSONS.find(({ id }) => id === lessonId) ?? FIRST_LESSON;
  const [own, setOwn] = useState<OwnBowl | null>(null);
  const { massKg, fatShare } = own ?? { massKg: USUAL_BOWL_KG, fatShare: lesson.fatShare };
  const begun = useMemo(() => lessonWith(lesson, { massKg, fatShare }), [lesson, massKg, fatShare]);
  const [, setBests] = useState(0);
  const [search] = useSearchParams();
  const stepId = search.get('pour');
  if (stepId !== null) return <ReplayedPour key={stepId} stepId={stepId} />;
  return (
    <div>
      <h1 className="text-3xl">Practise tempering</h1>
      <p className="mt-1 text-soft">
        A model for learning: it foretells no real pour, and nothing of it touches the book.
      </p>
      <div className="mt-4">
        <Chips
          legend="Lesson"
          options={LESSONS.map(({ id, name }) => {
            const best = bestOf(personId, id);
            return [id, best === null ? name : `${name}, best ${best}`] as const;
          })}
          chosen={[lesson.id]}
          choose={([id]) => {
            setLessonId(id ?? lesson.id);
            setOwn(null);
          }}
        />
      </div>
      <YourBowl key={lesson.id} lesson={lesson} own={own} change={setOwn} />
      <Bowl
        key={`${lesson.id} ${massKg} ${fatShare}`}
        lesson={begun}
        isOwn={own !== null}
        scored={() => setBests((n) => n + 1)}
      />
    </div>
  );
}

const nameOf = (personId: string | null, lessonId: string): string =>
  `wunsch.practice.${personId ?? 'nobody'}.${lessonId}`;
function bestOf(personId: string | null, lessonId: string): number | null {
  const kept = localStorage.getItem(nameOf(personId, lessonId));
  return kept === null || !Number.isFinite(Number(kept)) ? null : Number(kept);
}

/** Points of a curve that is drawn several times a second. */
const MOST_POINTS = 120;

const BEGIN: Controls = { around: 'bath', bathC: 30, shear: 1, speed: 20, running: false };

/** The lesson's bowl, or one's own: its grams and its fat. */
function YourBowl({
  lesson,
  own,
  change,
}: {
  lesson: Lesson;
  own: OwnBowl | null;
  change: (own: OwnBowl | null) => void;
}) {
  const show = useShow();
  const usual: OwnBowl = { massKg: USUAL_BOWL_KG, fatShare: lesson.fatShare };
  const heavy = (kg: number, digits: number): string => show.heavyFromGrams(1000 * kg).toFixed(digits);
  const [mass, setMass] = useState(typedNumber(Number(heavy(usual.massKg, 2))));
  const [fat, setFat] = useState(typedNumber(Math.round(100 * usual.fatShare)));
  const [wrong, setWrong] = useState<string | null>(null);
  const take = (): void => {
    const read: OwnBowl = {
      massKg: show.gramsFromHeavy(readNumber(mass) ?? NaN) / 1000,
      fatShare: (readNumber(fat) ?? NaN) / 100,
    };
    const { massKg, fatShare } = OWN_BOWL_LIMITS;
    if (!(read.massKg >= massKg.from && read.massKg <= massKg.to))
      return setWrong(
        `A bowl of ${heavy(massKg.from, 1)} to ${heavy(massKg.to, 0)} ${show.heavy} can be practised with.`,
      );
    if (!(read.fatShare >= fatShare.from && read.fatShare <= fatShare.to))
      return setWrong(`Chocolate of ${100 * fatShare.from} to ${100 * fatShare.to}\u00a0% fat can be practised with.`);
    setWrong(null);
    change(read);
  };
  const now = own ?? usual;
  return (
    <details className="mt-2">
      <summary className="inline-flex min-h-11 cursor-pointer items-center">
        <span>
          Bowl: <strong>{show.mass(Math.round(1_000_000 * now.massKg))}</strong>, {Math.round(100 * now.fatShare)}
          &nbsp;% fat. <span className="underline">Take your own</span>
        </span>
      </summary>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <NumberBox
          className="w-32"
          label="Chocolate"
          unit={show.heavy}
          value={mass}
          onEnter={take}
          onChange={setMass}
        />
        <NumberBox className="w-32" label="Of it fat" unit="%" value={fat} onEnter={take} onChange={setFat} />
        <button type="button" className="button" onClick={take}>
          Begin with this bowl
        </button>
        {own !== null && (
          <button type="button" className="button button-quiet" onClick={() => change(null)}>
            The lesson’s bowl again
          </button>
        )}
      </div>
      {wrong !== null && (
        <p role="alert" className="mt-1 font-semibold text-crimson">
          {wrong}
        </p>
      )}
    </details>
  );
}

function Bowl({ lesson, isOwn, scored }: { lesson: Lesson; isOwn: boolean; scored: () => void }) {
  const { personId, view } = useHere();
  const show = useShow();
  const unit = view.settings.temperatureUnit;
  const [controls, setControls] = useState<Controls>({ ...BEGIN, bathC: Math.round(lesson.start.tempC) });
  const [poured, setPoured] = useState<PracticeEnd | null>(null);
  const [shares, setShares] = useState(USUAL_SHARES);
  const massKg = lesson.massKg ?? USUAL_BOWL_KG;
  const { practice, add, again, pour } = useBowl(lesson, controls);
  const { bowl, minute, log } = practice;
  const set = (next: Partial<Controls>): void => setControls((now) => ({ ...now, ...next }));
  const thick = thickness(bowl);
  // Frames come oftener than readings: the chart follows these.
  const points = useMemo(() => {
    const every = Math.ceil(log.length / MOST_POINTS);
    return log
      .filter((_, i) => i % every === 0 || i === log.length - 1)
      .map(({ second, tempC }) => ({ minute: second / 60, tempC }));
  }, [log]);
  const finish = (): void => {
    set({ running: false });
    void pour(unit).then((end) => {
      if (!end) return;
      const best = bestOf(personId, lesson.id);
      // Only the lesson's own bowl can be held against earlier runs.
      if (!isOwn && (best === null || end.score > best))
        localStorage.setItem(nameOf(personId, lesson.id), String(end.score));
      setPoured(end);
      scored();
    });
  };
  const restart = (): void => {
    again();
    setPoured(null);
    setControls({ ...BEGIN, bathC: Math.round(lesson.start.tempC) });
  };
  return (
    <div className="mt-5 grid gap-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div className="min-w-0">
        <p className="max-w-2xl">{lesson.story(show.temp)}</p>
        <div className="mt-3 flex flex-wrap items-end gap-x-8 gap-y-2" aria-live="off">
          <span className="figure text-6xl" data-testid="bowl-temperature">
            {show.temp(Math.round(10 * bowl.tempC) / 10)}
          </span>
          <Meter label="Form V" share={bowl.v / 0.08} text={`${(100 * bowl.v).toFixed(1)}\u00a0%`} tone="bg-leaf" />
          <Meter label="Form IV" share={bowl.iv / 0.08} text={`${(100 * bowl.iv).toFixed(1)}\u00a0%`} tone="bg-ripe" />
          <Meter label="Thickness" share={(thick - 1) / 4} text={`${thick.toFixed(1)}×`} tone="bg-crimson" />
          <span className="figure text-2xl">{minute.toFixed(1)} min</span>
        </div>
        {poured && (
          <section
            aria-label="The bar"
            className={`mt-4 rounded-md px-4 py-3 ${poured.bar.verdict === 'good' ? 'bg-leaf-wash' : 'bg-ripe-wash'}`}
          >
            <p className="figure text-2xl">
              {poured.score} of 100. {BAR_WORDS[poured.bar.verdict]}
            </p>
            <p className="mt-1">
              {poured.verdict.first
                ? `${poured.verdict.sentence} ${poured.verdict.first.todo}`
                : poured.bar.verdict === 'good'
                  ? `In ${poured.minutes.toFixed(0)} min; the best run known takes ${lesson.bestMin}.`
                  : 'Its temperatures were right: more stirring, or more minutes at the low point, would have made the seed.'}
            </p>
            <div className="mt-3">
              <DrawnBar bar={poured.bar} />
            </div>
          </section>
        )}
        <div className="mt-3">
          <Suspense fallback={<div className="h-60" />}>
            <TemperChart
              caption="Temperature by minutes; bands are where it is melted, cooled and worked"
              points={points}
              windows={lesson.windows}
              unit={unit}
              leastMin={30}
            />
          </Suspense>
        </div>
      </div>
      <div className="grid content-start gap-4" role="group" aria-label="What you do">
        <div className="flex flex-wrap gap-2">
          {poured ? (
            <button type="button" className="button button-main text-lg" onClick={restart}>
              Begin again
            </button>
          ) : (
            <>
              <button
                type="button"
                className={controls.running ? 'button' : 'button button-main'}
                onClick={() => set({ running: !controls.running })}
              >
                {controls.running ? 'Pause' : minute > 0 ? 'Go on' : 'Begin'}
              </button>
              <button
                type="button"
                className={minute > 0 ? 'button button-main' : 'button'}
                disabled={minute === 0}
                onClick={finish}
              >
                Pour it
              </button>
              <button type="button" className="button button-quiet" disabled={minute === 0} onClick={restart}>
                Begin again
              </button>
            </>
          )}
        </div>
        <Chips
          legend="Clock"
          options={SPEEDS}
          chosen={[String(controls.speed) as '1' | '20' | '60']}
          choose={([next]) => set({ speed: Number(next ?? 20) })}
        />
        <Chips
          legend="The bowl stands on"
          options={AROUND.map(
            ([id, words]) =>
              [id, id === 'bath' ? words : `${words}, ${show.temp(id === 'room' ? lesson.roomC : MARBLE_C)}`] as const,
          )}
          chosen={[controls.around]}
          choose={([next]) => set({ around: next ?? 'bath' })}
        />
        <LabelledSlider
          label="Water bath, temperature"
          text={show.temp(controls.bathC)}
          from={8}
          to={60}
          step={1}
          value={controls.bathC}
          onChange={(bathC) => set({ bathC, around: 'bath' })}
        />
        <Chips
          legend="Stirring"
          options={STIRS}
          chosen={[String(controls.shear) as '0' | '1' | '2']}
          choose={([next]) => set({ shear: Number(next ?? 1) })}
        />
        {lesson.seed &&
          (['chocolate', 'silk'] as const).map((kind) => (
            <div key={kind} className="flex items-end gap-3">
              <div className="min-w-0 flex-1">
                <LabelledSlider
                  label={`${SEED_WORDS[kind]}, share of the bowl`}
                  text={`${typedNumber(Math.round(1000 * shares[kind]) / 10)}\u00a0%, ${show.mass(Math.round(1_000_000 * shares[kind] * massKg))}`}
                  {...SEED_SHARES[kind]}
                  value={shares[kind]}
                  onChange={(share) => setShares((now) => ({ ...now, [kind]: share }))}
                />
              </div>
              <button
                type="button"
                className="button"
                disabled={poured !== null}
                onClick={() => add(kind, shares[kind])}
              >
                {SEED_WORDS[kind]} in
              </button>
            </div>
          ))}
        <Caution>At the real bowl: hot mass and hot water burn; no water and no steam into the chocolate.</Caution>
      </div>
    </div>
  );
}

function Meter({ label, share, text, tone }: { label: string; share: number; text: string; tone: string }) {
  return (
    <span className="w-24">
      <span className="label">{label}</span>
      <span className="figure block text-xl">{text}</span>
      <span aria-hidden className="block h-1.5 overflow-hidden rounded-full bg-sunk">
        <span className={`block h-full ${tone}`} style={{ width: `${Math.max(0, Math.min(100, 100 * share))}%` }} />
      </span>
    </span>
  );
}
