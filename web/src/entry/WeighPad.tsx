import { BackspaceIcon, ScalesIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import type { MassUnit } from '@wunsch/core/units/mass';
import { decimalMark } from '../parts/number';
import { useShow } from '../parts/workshop';
import { fieldG, isMass, textOfG, weighingG, type FieldSpec, type FieldState } from './entry';
import { doubt } from '@wunsch/core/entry/doubt';
import { PutOn } from '../parts/PutOn';
import { useScale } from '../parts/scale';

export interface PadTarget {
  spec: FieldSpec;
  state: FieldState;
  change: (state: FieldState) => void;
}

/** The figure after one more key of the pad; null where the key is none of its own. */
export function padKey(state: FieldState, key: string): FieldState | null {
  const { text } = state;
  if (key === 'Backspace') return text === '' ? null : { ...state, text: text.slice(0, -1) };
  if (key === '.' || key === ',') {
    const mark = decimalMark();
    // Of a row of figures, the one in hand.
    return (text.split(' ').at(-1) ?? '').includes(mark) ? state : { ...state, text: text + mark };
  }
  return /^\d$/.test(key) ? { ...state, text: text === '0' ? key : text + key } : null;
}

/** What is typed now is the empty tub: it comes off what follows. */
export function tareWeighing(state: FieldState): FieldState | null {
  const now = weighingG(state);
  if (now === null && (state.tareG ?? 0) === 0) return null;
  return { ...state, tareG: now === null ? 0 : now + (state.tareG ?? 0), text: '' };
}

/** The next figure of a row of them. */
const nextFigure = (state: FieldState): FieldState | null =>
  state.text.trim() === '' ? null : { ...state, text: `${state.text.trim()} ` };

/** Keeps the weighing in hand and begins another. */
export function addWeighing(state: FieldState): FieldState | null {
  const now = weighingG(state);
  return now === null || now <= 0
    ? null
    : { ...state, parts: [...(state.parts ?? []), Math.round(now * 1000) / 1000], text: '' };
}

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0'] as const;

export const otherUnit = (unit: MassUnit): MassUnit => ({ g: 'kg', kg: 'g', oz: 'lb', lb: 'oz' })[unit] as MassUnit;

/** Large keys for wet hands, the tare, the unit, the scale, and the sum of several weighings. */
export function WeighPad({
  target,
  unit,
  next,
}: {
  target: PadTarget | null;
  /** Turns the screen to the other unit; null where the figure has its own. */
  unit: (() => void) | null;
  next: (() => void) | null;
}) {
  const weighs = target !== null && isMass(target.spec);
  const typed =
    target !== null && (weighs || ['pieces', 'number', 'temp', 'price', 'series'].includes(target.spec.type));
  const press = (key: string): void => {
    const pressed = target && padKey(target.state, key);
    if (pressed) target.change(pressed);
  };
  return (
    <section aria-label="Weigh pad" className="select-none">
      <PadHead target={target} />
      <div className="mt-3 grid grid-cols-4 gap-2 md:max-lg:mt-1">
        <div className="col-span-3 grid grid-cols-3 gap-2">
          {KEYS.map((key) => (
            <button
              key={key}
              type="button"
              className="pad-key figure"
              disabled={!typed}
              onClick={() => press(key)}
              aria-label={key === '.' ? 'point' : key}
            >
              {key === '.' ? decimalMark() : key}
            </button>
          ))}
          <button
            type="button"
            className="pad-key"
            aria-label="Delete the last digit"
            disabled={!typed || target.state.text === ''}
            onClick={() => target?.change({ ...target.state, text: target.state.text.slice(0, -1) })}
          >
            <BackspaceIcon size={26} aria-hidden />
          </button>
        </div>
        <div className="grid grid-rows-4 gap-2">
          <PadActions target={target && (weighs || target.spec.type === 'series') ? target : null} turn={unit} />
          <button
            type="button"
            className="pad-key bg-ink! text-on-ink! text-base!"
            disabled={!next}
            onClick={() => next?.()}
          >
            Next
          </button>
        </div>
      </div>
      {weighs && <FromScale target={target} />}
    </section>
  );
}

function PadHead({ target }: { target: PadTarget | null }) {
  const show = useShow();
  if (!target) {
    return (
      <div className="min-h-20 text-soft">
        <div className="label">Weigh pad</div>
        <p className="mt-1">Press a figure on the left to fill it here.</p>
      </div>
    );
  }
  const { spec, state } = target;
  const mass = isMass(spec);
  const unit = mass ? (state.unit ?? 'g') : (spec.unit ?? '');
  const sum = mass ? fieldG(state) : null;
  const parts = state.parts ?? [];
  return (
    <div className="min-h-20 md:max-lg:min-h-16" aria-live="polite">
      <div className="label">{spec.label}</div>
      <div className="figure mt-1 flex items-baseline gap-2 text-5xl md:max-lg:text-4xl">
        <span className={state.text === '' ? 'text-soft' : ''}>{state.text === '' ? '0' : state.text}</span>
        <span className="text-2xl text-soft">{unit}</span>
      </div>
      <div className="mt-1 min-h-5 text-sm text-soft">
        {(state.tareG ?? 0) > 0 && <span>less {show.mass((state.tareG ?? 0) * 1000)} tare · </span>}
        {mass && parts.length > 0 && sum !== null && (
          <span>
            {parts.length + (weighingG(state) === null ? 0 : 1)} {spec.type === 'masses' ? 'blocks' : 'weighings'},{' '}
            {show.mass(sum * 1000)} together
          </span>
        )}
      </div>
    </div>
  );
}

function PadActions({ target, turn }: { target: PadTarget | null; turn: (() => void) | null }) {
  const { heavy } = useShow();
  const unit = target?.state.unit ?? (heavy === 'kg' ? 'g' : 'oz');
  const series = target?.spec.type === 'series';
  const tared = target && !series ? tareWeighing(target.state) : null;
  const added = target && (series ? nextFigure(target.state) : addWeighing(target.state));
  return (
    <>
      <button
        type="button"
        className="pad-key text-base!"
        disabled={!target || !turn}
        title="All weights of this screen in the other unit (Alt U)"
        onClick={() => turn?.()}
      >
        in {otherUnit(unit)}
      </button>
      <button
        type="button"
        className="pad-key text-base!"
        disabled={!tared}
        title="What is typed now is the empty tub: take it off what follows (Alt T)"
        onClick={() => tared && target?.change(tared)}
      >
        Tare
      </button>
      <button
        type="button"
        className="pad-key text-base!"
        disabled={!added}
        title="Keep this weighing and begin another (Alt A)"
        onClick={() => added && target.change(added)}
      >
        Add
      </button>
    </>
  );
}

function FromScale({ target }: { target: PadTarget }) {
  const show = useShow();
  const [on, setOn] = useState(false);
  const reading = useScale(on);
  const unit = target.state.unit ?? 'g';
  const ready = reading !== null && !reading.unplugged && reading.stable && reading.massG > 0;
  const typed = weighingG({ ...target.state, tareG: 0 });
  const far = ready && typed !== null && doubt('', typed, reading.massG, '') !== null;
  if (!on) {
    return (
      <button type="button" className="button mt-3 w-full" onClick={() => setOn(true)}>
        <ScalesIcon size={22} aria-hidden /> Take from scale
      </button>
    );
  }
  return (
    <div className="mt-3 rounded-md bg-sunk p-3">
      <div className="flex items-baseline justify-between gap-3">
        <span className="label">{reading?.simulated === false ? 'Scale' : 'Scale (simulated)'}</span>
        <span className="text-sm">
          {reading === null ? 'no answer yet' : reading.unplugged ? 'unplugged' : reading.stable ? 'settled' : 'moving'}
        </span>
      </div>
      <div className="mt-1 flex items-center justify-between gap-3">
        <output className="figure text-3xl" aria-label="Scale reading">
          {reading === null || reading.unplugged ? '–' : show.mass(reading.massG * 1000)}
        </output>
        <button
          type="button"
          className="button button-main"
          disabled={!ready}
          onClick={() => reading && target.change({ ...target.state, text: textOfG(reading.massG, unit) })}
        >
          Take it
        </button>
      </div>
      {far && (
        <p role="alert" className="mt-2 text-sm font-semibold text-crimson">
          {show.mass(typed * 1000)} is typed, the scale shows {show.mass(reading.massG * 1000)}.
        </p>
      )}
      {reading?.simulated !== false && <PutOn />}
    </div>
  );
}
