import { useState, type SubmitEvent, type ReactNode } from 'react';
import { readNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';

/** One small form that adds something, with its own refusal. */
export function Adder({
  label,
  children,
  act,
}: {
  label: string;
  children: ReactNode;
  act: (form: FormData) => Promise<unknown>;
}) {
  const [error, setError] = useState<unknown>(null);
  const submit = async (event: SubmitEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = event.currentTarget;
    try {
      await act(new FormData(form));
      form.reset();
      setError(null);
    } catch (reason) {
      setError(reason);
    }
  };
  return (
    <form className="mt-3" onSubmit={(event) => void submit(event)}>
      <div className="flex flex-wrap items-end gap-3">
        {children}
        <button type="submit" className="button">
          {label}
        </button>
      </div>
      <Refusal error={error} />
    </form>
  );
}

export const text = (form: FormData, name: string): string => ((form.get(name) as string | null) ?? '').trim();
/** A figure of a form; null where nothing is typed. @throws Error for what cannot be read */
export function figure(form: FormData, name: string, label: string): number | null {
  const typed = text(form, name);
  const value = readNumber(typed);
  if (value === null && typed !== '') throw new Error(`${label}: “${typed}” is not a number.`);
  return value;
}
export const grams = (form: FormData, name: string, label: string): number | null => {
  const kg = figure(form, name, label);
  return kg === null ? null : kg * 1000;
};
