import { useState } from 'react';
import { dropDraft, useKept } from './draft';
import { NumberBox } from './fields';
import { readNumber } from './number';

interface Props {
  /** Which of them: of a run, and what is read. Half a figure is there again after a reload. */
  id: string;
  label: string;
  unit: string;
  button: string;
  busy?: boolean;
  placeholder?: string;
  /** What is wrong with a figure that can be read, or null. */
  check?: (value: number) => string | null;
  /** Takes the figure as it was typed; whether it was kept. What was not stays in the line. */
  take: (value: number) => Promise<boolean>;
  className: string;
}

const draftId = (id: string): string => `reading.${id}`;

/** Forgets what was typed in a line that is not shown any more. */
export const forgetReading = (id: string): void => dropDraft(draftId(id));

/** A figure of something under way, read off and typed: one line, and a press. */
export function ReadingLine({ id, label, unit, button, busy = false, placeholder, check, take, className }: Props) {
  const [text, setText, forget] = useKept(draftId(id), '');
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const enter = (): void => {
    const value = readNumber(text);
    const wrong = value === null ? (text.trim() === '' ? 'is missing' : 'is not a number') : (check?.(value) ?? null);
    setProblem(wrong ?? undefined);
    if (value !== null && wrong === null && !busy) void take(value).then((kept) => kept && forget());
  };
  return (
    <span className="flex items-start gap-2">
      <NumberBox
        className={className}
        label={label}
        unit={unit}
        value={text}
        problem={problem}
        placeholder={placeholder}
        onEnter={enter}
        onChange={(next) => {
          setProblem(undefined);
          setText(next);
        }}
      />
      <button type="button" className="button mt-6.5" disabled={busy} onClick={enter}>
        {button}
      </button>
    </span>
  );
}
