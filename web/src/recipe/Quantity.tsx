import { useId, useState } from 'react';
import { gramsTo, type MassUnit } from '@wunsch/core/units/mass';
import { readMass, readNumber, typedNumber } from '../parts/number';

interface Props {
  label: string;
  value: number | null;
  onValue: (value: number | null) => void;
  /** What is shown beside it; a weight is read with its own unit too. */
  unit?: string | undefined;
  mass?: MassUnit | undefined;
  digits?: number;
  placeholder?: string | undefined;
  /** The label is only read aloud. */
  quiet?: boolean;
  className?: string;
  problem?: string | undefined;
}

const textOf = (value: number | null, mass: MassUnit | undefined, digits: number): string => {
  if (value === null) return '';
  const shown = mass ? gramsTo(value, mass) : value;
  return typedNumber(Number(shown.toFixed(mass === 'kg' || mass === 'lb' ? 3 : digits)));
};

/** A figure to type that follows what is worked out elsewhere, but not while it is typed. */
export function Quantity({
  label,
  value,
  onValue,
  unit,
  mass,
  digits = 2,
  placeholder,
  quiet = false,
  className = '',
  problem,
}: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const read = (text: string): number | null => (mass ? readMass(text, mass) : readNumber(text));
  const wrong = typed !== null && typed.trim() !== '' && (read(typed) === null || (read(typed) ?? 0) < 0);
  const words = wrong ? 'is not a figure that can be weighed or meant' : problem;
  return (
    <div className={className}>
      <label htmlFor={id} className={quiet ? 'sr-only' : 'label'}>
        {label}
      </label>
      <span className="flex items-center gap-2">
        <input
          id={id}
          className="entry figure min-w-0 flex-1 text-right text-lg!"
          inputMode="decimal"
          autoComplete="off"
          value={typed ?? textOf(value, mass, digits)}
          placeholder={placeholder}
          aria-invalid={words !== undefined}
          aria-describedby={words === undefined ? undefined : `${id}-problem`}
          onFocus={(event) => event.target.select()}
          onChange={(event) => {
            const text = event.target.value;
            setTyped(text);
            const next = read(text);
            if (text.trim() === '') onValue(null);
            else if (next !== null && next >= 0) onValue(next);
          }}
          onBlur={() => {
            if (!wrong) setTyped(null);
          }}
        />
        {(mass ?? unit) !== undefined && <span className="w-7 shrink-0 text-sm text-soft">{mass ?? unit}</span>}
      </span>
      {words !== undefined && (
        <span id={`${id}-problem`} className="mt-1 block text-sm font-semibold text-crimson">
          {words}
        </span>
      )}
    </div>
  );
}
