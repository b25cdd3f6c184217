import { Backspace, Scales } from '@phosphor-icons/react';
import { useState } from 'react';
import type { MassUnit } from '@wunsch/core/units/mass';
import { formatMass, gramsFrom } from '@wunsch/core/units/mass';
import { send } from '../parts/api';
import { useHere } from '../parts/workshop';
import { fieldG, textOfG, weighingG, type FieldSpec, type FieldState } from './entry';
import { useScale } from '../parts/scale';

export interface PadTarget {
  spec: FieldSpec;
  state: FieldState;
  change: (state: FieldState) => void;
}

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0'] as const;

export const otherUnit = (unit: MassUnit): MassUnit => ({ g: 'kg', kg: 'g', oz: 'lb', lb: 'oz' })[unit] as MassUnit;

/** Large keys for wet hands, the tare, the unit, the scale, and the sum of several weighings. */
export function WeighPad({ target, next }: { target: PadTarget | null; next: (() => void) | null }) {
  const weighs = target?.spec.type === 'mass' || target?.spec.type === 'masses';
  const typed = target !== null && (weighs || ['pieces', 'number', 'temp'].includes(target.spec.type));
  const press = (key: string): void => {
    if (!target) return;
    const { text } = target.state;
    if (key === '.' && text.includes('.')) return;
    target.change({ ...target.state, text: text === '0' && key !== '.' ? key : text + key });
  };
  return (
    <section aria-label="Weigh pad" className="select-none">
      <PadHead target={target} />
      <div className="mt-3 grid grid-cols-4 gap-2">
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
              {key}
            </button>
          ))}
          <button
            type="button"
            className="pad-key"
            aria-label="Delete the last digit"
            disabled={!typed || target.state.text === ''}
            onClick={() => target?.change({ ...target.state, text: target.state.text.slice(0, -1) })}
          >
            <Backspace size={26} aria-hidden />
          </button>
        </div>
        <div className="grid grid-rows-4 gap-2">
          <PadActions target={weighs ? target : null} />
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
      {weighs && target && <FromScale target={target} />}
    </section>
  );
}

function PadHead({ target }: { target: PadTarget | null }) {
  const { massSystem } = useHere().view.settings;
  if (!target) {
    return (
      <div className="min-h-20 text-soft">
        <div className="label">Weigh pad</div>
        <p className="mt-1">Press a figure on the left to fill it here.</p>
      </div>
    );
  }
  const { spec, state } = target;
  const mass = spec.type === 'mass' || spec.type === 'masses';
  const unit = mass ? (state.unit ?? 'g') : (spec.unit ?? '');
  const sum = mass ? fieldG(state) : null;
  const parts = state.parts ?? [];
  return (
    <div className="min-h-20" aria-live="polite">
      <div className="label">{spec.label}</div>
      <div className="figure mt-1 flex items-baseline gap-2 text-5xl">
        <span className={state.text === '' ? 'text-soft' : ''}>{state.text === '' ? '0' : state.text}</span>
        <span className="text-2xl text-soft">{unit}</span>
      </div>
      <div className="mt-1 min-h-5 text-sm text-soft">
        {(state.tareG ?? 0) > 0 && <span>less {formatMass((state.tareG ?? 0) * 1000, massSystem)} tare · </span>}
        {mass && parts.length > 0 && sum !== null && (
          <span>
            {parts.length + (weighingG(state) === null ? 0 : 1)} {spec.type === 'masses' ? 'blocks' : 'weighings'},{' '}
            {formatMass(sum * 1000, massSystem)} together
          </span>
        )}
      </div>
    </div>
  );
}

function PadActions({ target }: { target: PadTarget | null }) {
  const unit = target?.state.unit ?? 'g';
  const now = target ? weighingG(target.state) : null;
  return (
    <>
      <button
        type="button"
        className="pad-key text-base!"
        disabled={!target}
        onClick={() =>
          target &&
          target.change({
            ...target.state,
            unit: otherUnit(unit),
            text:
              now === null
                ? target.state.text
                : textOfG(gramsFrom(Number(target.state.text.replace(',', '.')), unit), otherUnit(unit)),
          })
        }
      >
        in {otherUnit(unit)}
      </button>
      <button
        type="button"
        className="pad-key text-base!"
        disabled={!target || (now === null && (target.state.tareG ?? 0) === 0)}
        title="What is typed now is the empty tub: take it off what follows"
        onClick={() => {
          if (!target) return;
          const typed = now === null ? 0 : now + (target.state.tareG ?? 0);
          target.change({ ...target.state, tareG: typed, text: '' });
        }}
      >
        Tare
      </button>
      <button
        type="button"
        className="pad-key text-base!"
        disabled={!target || now === null || now <= 0}
        title="Keep this weighing and begin another"
        onClick={() =>
          target &&
          now !== null &&
          target.change({
            ...target.state,
            parts: [...(target.state.parts ?? []), Math.round(now * 1000) / 1000],
            text: '',
          })
        }
      >
        Add
      </button>
    </>
  );
}

function FromScale({ target }: { target: PadTarget }) {
  const { massSystem } = useHere().view.settings;
  const [on, setOn] = useState(false);
  const reading = useScale(on);
  const unit = target.state.unit ?? 'g';
  const ready = reading !== null && !reading.unplugged && reading.stable && reading.massG > 0;
  if (!on) {
    return (
      <button type="button" className="button mt-3 w-full" onClick={() => setOn(true)}>
        <Scales size={22} aria-hidden /> Take from scale
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
          {reading === null || reading.unplugged ? '–' : formatMass(reading.massG * 1000, massSystem)}
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
      {reading?.simulated !== false && <PutOn />}
    </div>
  );
}

/** Nobody can lift a sack on to a simulated scale, so it is told what stands on it. */
function PutOn() {
  const [text, setText] = useState('');
  const grams = Number(text.replace(',', '.')) * 1000;
  const valid = text.trim() !== '' && Number.isFinite(grams) && grams >= 0 && grams <= 500_000;
  const place = (): void => {
    if (valid) void send('POST', '/api/devices/scale/place', { massG: grams });
  };
  // Not a form: it stands inside the bench's own.
  return (
    <div className="mt-2 flex items-center gap-2 border-t border-rule pt-2">
      <label className="label flex items-center gap-2">
        Put on the simulated scale
        <input
          className="entry min-h-[44px]! w-20!"
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            event.stopPropagation();
            place();
          }}
          aria-label="Kilograms to put on the simulated scale"
        />
        kg
      </label>
      <button type="button" className="button button-quiet" disabled={!valid} onClick={place}>
        Put on
      </button>
    </div>
  );
}
