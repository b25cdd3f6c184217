import { XIcon } from '@phosphor-icons/react';
import { forgetReading, ReadingLine } from '../parts/ReadingLine';

interface Props {
  /** Whose readings they are: half of one is there again after a reload. */
  of: string;
  label: (typeof READ)[number];
  unit: string;
  values: readonly number[];
  change: (values: number[]) => void;
  /** What is wrong with a value, or null. */
  check: (value: number) => string | null;
  digits: number;
  hint?: string;
}

/** What the readings of an inspection are called. */
export const READ = ['Moisture', 'Beans in 100 g'] as const;

/** Forgets what was half typed, once the inspection is over. */
export const forgetReadings = (of: string): void => READ.forEach((label) => forgetReading(`${of}.${label}`));

/** Several readings of one thing: type, Enter, type the next. */
export function Readings({ of, label, unit, values, change, check, digits, hint }: Props) {
  return (
    <div>
      <ReadingLine
        id={`${of}.${label}`}
        label={label}
        unit={unit}
        button="Add"
        placeholder="then Enter"
        className="w-52"
        check={check}
        take={(value) => {
          change([...values, value]);
          return Promise.resolve(true);
        }}
      />
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
