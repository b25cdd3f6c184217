import { MOST_SMELLS, SCALE_ENDS, SCALES } from '@wunsch/core/taste/records';
import { useNow } from '../app/DueLine';
import { Box } from '../parts/fields';
import { capital } from '../parts/words';
import { ColourStrip } from './ColourStrip';
import { clockWords, type Impression } from './impression';
import { MeltLine } from './MeltLine';
import { ScaleRow } from './ScaleRow';
import { WordPicker } from './WordPicker';

export const STEPS = ['Look', 'Snap and smell', 'Melt', 'Sum up'] as const;
export type StepAt = 0 | 1 | 2 | 3;
/** Seconds that a mouth takes to be ready again. */
const PAUSE_S = 60;

/** One step of the guided sheet: look, snap and smell, melt, sum up. */
export function SheetForm({
  step,
  value,
  onChange,
  words,
  before,
  scales = true,
}: {
  step: StepAt;
  value: Impression;
  onChange: (change: (before: Impression) => Impression) => void;
  words: readonly string[];
  /** The figures of the look before, where one went back. */
  before?: Impression | undefined;
  scales?: boolean;
}) {
  const set = (next: Partial<Impression>): void => onChange((now) => ({ ...now, ...next }));
  if (step === 0)
    return (
      <div className="grid gap-5">
        <ColourStrip value={value.colour} onChange={(colour) => set({ colour })} />
        <ScaleRow
          label="Shine"
          ends={['dull', 'like a mirror']}
          value={value.shine}
          before={before?.shine}
          onChange={(shine) => set({ shine })}
        />
      </div>
    );
  if (step === 1)
    return (
      <div className="grid gap-5">
        <ScaleRow
          label="Snap"
          ends={['bends', 'cracks loud']}
          value={value.snap}
          before={before?.snap}
          onChange={(snap) => set({ snap })}
        />
        <div className="flex flex-wrap gap-2" role="group" aria-label="The break">
          <button
            type="button"
            className="chip"
            aria-pressed={value.cleanBreak === true}
            onClick={() => set({ cleanBreak: value.cleanBreak === true ? null : true })}
          >
            Clean edge
          </button>
          <button
            type="button"
            className="chip"
            aria-pressed={value.cleanBreak === false}
            onClick={() => set({ cleanBreak: value.cleanBreak === false ? null : false })}
          >
            Crumbles
          </button>
          <button
            type="button"
            className="chip"
            aria-pressed={value.atSeam}
            onClick={() => set({ atSeam: !value.atSeam })}
          >
            Broken at a seam
          </button>
        </div>
        {value.atSeam && (
          <p className="text-sm text-soft">
            At a seam every bar breaks clean: break another piece across its thickness.
          </p>
        )}
        <WordPicker
          label="It smells of"
          words={words}
          chosen={value.smell}
          choose={(word) =>
            onChange((now) => ({
              ...now,
              smell: now.smell.includes(word)
                ? now.smell.filter((w) => w !== word)
                : [...now.smell, word].slice(0, MOST_SMELLS),
            }))
          }
        />
        {value.smell.length > 0 && (
          <p>
            {capital(value.smell.join(', '))}.{' '}
            {value.smell.length >= MOST_SMELLS && (
              <strong>More are not kept: press one again to leave it out first.</strong>
            )}
          </p>
        )}
      </div>
    );
  if (step === 2) return <MeltLine value={value} onChange={onChange} words={words} />;
  return (
    <div className="grid gap-4">
      <ScaleRow
        label="Overall"
        ends={['not again', 'the best there is']}
        value={value.overall}
        before={before?.overall}
        onChange={(overall) => set({ overall })}
      />
      {scales && (
        <div className="grid gap-x-8 gap-y-4 md:grid-cols-2">
          {SCALES.map((scale) => (
            <ScaleRow
              key={scale}
              label={capital(scale)}
              ends={SCALE_ENDS[scale]}
              value={value.scales[scale] ?? null}
              before={before?.scales[scale]}
              onChange={(next) =>
                onChange((now) => {
                  const { [scale]: _, ...rest } = now.scales;
                  return { ...now, scales: next === null ? rest : { ...rest, [scale]: next } };
                })
              }
            />
          ))}
        </div>
      )}
      <div className="grid gap-4 md:grid-cols-2">
        <Box label="When would you eat this?" value={value.eatWhen} onChange={(eatWhen) => set({ eatWhen })} />
        <Box label="Anything else" value={value.note} onChange={(note) => set({ note })} />
      </div>
    </div>
  );
}

/** Warm water between pieces, with its clock. */
export function WarmWater({
  value,
  onChange,
}: {
  value: Impression;
  onChange: (change: (before: Impression) => Impression) => void;
}) {
  const now = useNow(500);
  const { pauseAt, pauses } = value;
  if (pauseAt === null)
    return (
      <button
        type="button"
        className="button button-quiet"
        onClick={() => onChange((before) => ({ ...before, pauseAt: Date.now() }))}
      >
        Warm water
        {pauses.length > 0 && ` (${pauses.length})`}
      </button>
    );
  const gone = (now - pauseAt) / 1000;
  return (
    <button
      type="button"
      className="button"
      onClick={() =>
        onChange((before) => ({
          ...before,
          pauseAt: null,
          pauses: [...before.pauses, Math.max(0, Math.round((Date.now() - (before.pauseAt ?? 0)) / 1000))].slice(-20),
        }))
      }
    >
      <span className="figure">{clockWords(gone)}</span>{' '}
      {gone < PAUSE_S ? 'of a minute: go on' : 'the mouth is ready: go on'}
    </button>
  );
}

/** The four steps, with where one is. */
export function StepChips({ at, go }: { at: StepAt; go: (step: StepAt) => void }) {
  return (
    <div role="group" aria-label="Step of the sheet" className="flex flex-wrap gap-1.5">
      {STEPS.map((name, i) => (
        <button key={name} type="button" className="chip px-3!" aria-pressed={at === i} onClick={() => go(i as StepAt)}>
          {name}
        </button>
      ))}
    </div>
  );
}
