import { useId, type ReactNode, type Ref } from 'react';
import type { MassUnit } from '@wunsch/core/units/mass';
import { Labelled, problemOf } from './Labelled';
import { unreadable, unweighable } from './number';

interface BoxProps {
  label: ReactNode;
  value: string;
  onChange: (text: string) => void;
  unit?: string | undefined;
  problem?: string | undefined;
  placeholder?: string | undefined;
  hint?: ReactNode;
  onEnter?: (() => void) | undefined;
  /** It was asked for by a press: the hands go on in it. */
  autoFocus?: boolean;
  inputRef?: Ref<HTMLInputElement>;
  className?: string;
}

/** One line to type in, with its name above, its unit beside and what is wrong below. */
export function Box({
  label,
  value,
  onChange,
  unit,
  problem,
  placeholder,
  hint,
  onEnter,
  autoFocus = false,
  inputRef,
  className = '',
  decimal = false,
}: BoxProps & { decimal?: boolean }) {
  const id = useId();
  return (
    <Labelled
      id={id}
      label={
        <>
          {label}
          {unit !== undefined && ` (${unit})`}
        </>
      }
      hint={hint}
      problem={problem}
      className={className}
    >
      <input
        id={id}
        ref={inputRef}
        type="text"
        className={`entry ${decimal ? 'figure text-xl!' : ''}`}
        autoFocus={autoFocus}
        inputMode={decimal ? 'decimal' : undefined}
        autoComplete="off"
        value={value}
        placeholder={placeholder}
        aria-invalid={problem !== undefined}
        aria-describedby={problemOf(id, problem)}
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || onEnter === undefined) return;
          event.preventDefault();
          onEnter();
        }}
      />
    </Labelled>
  );
}

/** Several lines to type in. */
export function LongBox({ label, value, onChange, problem, placeholder, hint, className }: BoxProps) {
  const id = useId();
  return (
    <Labelled id={id} label={label} hint={hint} problem={problem} className={className}>
      <textarea
        id={id}
        rows={2}
        className="entry"
        value={value}
        placeholder={placeholder}
        aria-invalid={problem !== undefined}
        aria-describedby={problemOf(id, problem)}
        onChange={(event) => onChange(event.target.value)}
      />
    </Labelled>
  );
}

/**
 * A number to type, comma or point: what is none is told at once, where it stands.
 *
 * @param weighed the unit of a weight, which may be typed with another beside it: `900 g`
 */
export function NumberBox({ problem, weighed, ...props }: BoxProps & { weighed?: MassUnit }) {
  const wrong = weighed === undefined ? unreadable(props.value) : unweighable(props.value, weighed);
  return <Box {...props} problem={problem ?? wrong} decimal />;
}

/** One of a few, or with `several` any of them. */
export function Chips<T extends string>({
  legend,
  options,
  chosen,
  choose,
  several = false,
}: {
  legend: ReactNode;
  options: readonly (readonly [value: T, label: string])[];
  chosen: readonly T[];
  choose: (chosen: T[]) => void;
  several?: boolean;
}) {
  return (
    <fieldset>
      <legend className="label mb-1">{legend}</legend>
      <div className="flex flex-wrap gap-2">
        {options.map(([value, label]) => {
          const on = chosen.includes(value);
          return (
            <button
              key={value}
              type="button"
              className="chip"
              aria-pressed={on}
              onClick={() =>
                choose(several ? (on ? chosen.filter((row) => row !== value) : [...chosen, value]) : [value])
              }
            >
              {label}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}

/** A sentence that is true or not. */
export function Tick({
  checked,
  onChange,
  children,
}: {
  checked: boolean;
  onChange: (on: boolean) => void;
  children: ReactNode;
}) {
  return (
    <label className="flex min-h-11 cursor-pointer items-center gap-3">
      <input
        type="checkbox"
        className="size-5"
        checked={checked}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>{children}</span>
    </label>
  );
}
