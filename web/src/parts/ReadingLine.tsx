import { useState } from 'react';
import { useKept } from './draft';
import { NumberBox } from './fields';
import { readNumber } from './number';

interface Props {
  /** Which of them: of a run, and what is read. Half a figure is there again after a reload. */
  id: string;
  label: string;
  unit: string;
  button: string;
  busy: boolean;
  /** Takes the figure as it was typed; whether it was kept. What was not stays in the line. */
  take: (value: number) => Promise<boolean>;
  className: string;
}

/** A figure of something under way, read off and typed: one line, and a press. */
export function ReadingLine({ id, label, unit, button, busy, take, className }: Props) {
  const [text, setText, forget] = useKept(`reading.${id}`, '');
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const enter = (): void => {
    const value = readNumber(text);
    setProblem(value === null ? (text.trim() === '' ? 'is missing' : 'is not a number') : undefined);
    if (value !== null && !busy) void take(value).then((kept) => kept && forget());
  };
  return (
    <span className="flex items-start gap-2">
      <NumberBox
        className={className}
        label={label}
        unit={unit}
        value={text}
        problem={problem}
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
