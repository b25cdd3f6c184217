import { XIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { useKept } from '../parts/draft';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';

interface Props {
  /** Whose readings they are: half of one is there again after a reload. */
  of: string;
  label: string;
  unit: string;
  values: readonly number[];
  change: (values: number[]) => void;
  /** What is wrong with a value, or null. */
  check: (value: number) => string | null;
  digits: number;
  hint?: string;
}

/** Several readings of one thing: type, Enter, type the next. */
export function Readings({ of, label, unit, values, change, check, digits, hint }: Props) {
  const [text, setText, forget] = useKept(`readings.${of}.${label}`, '');
  const [problem, setProblem] = useState<string | undefined>();
  const add = (): void => {
    const value = readNumber(text);
    const wrong = value === null ? (text.trim() === '' ? 'is missing' : 'is not a number') : check(value);
    setProblem(wrong ?? undefined);
    if (value === null || wrong !== null) return;
    change([...values, value]);
    forget();
  };
  return (
    <div>
      <div className="flex items-end gap-3">
        <NumberBox
          label={label}
          unit={unit}
          value={text}
          onChange={setText}
          onEnter={add}
          problem={problem}
          className="w-52"
          placeholder="then Enter"
        />
        <button type="button" className="button mb-1" onClick={add}>
          Add
        </button>
      </div>
      {hint !== undefined && <p className="mt-1 text-sm text-soft">{hint}</p>}
      <ul className="mt-3 flex flex-wrap gap-2" aria-label={`${label}, so far`}>
        {values.map((value, index) => (
          <li key={index}>
            <button
              type="button"
              className="chip figure"
              aria-label={`Take ${value} ${unit} out`}
              onClick={() => change(values.filter((_, at) => at !== index))}
            >
              {value.toFixed(digits)} <XIcon size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
