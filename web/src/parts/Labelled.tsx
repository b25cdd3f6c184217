import type { ReactNode } from 'react';

interface Props {
  /** Of the field within. */
  id: string;
  label: ReactNode;
  hint?: ReactNode;
  problem?: string | undefined;
  className?: string | undefined;
  children: ReactNode;
}

/** What a field's `aria-describedby` names: what is wrong with it, if anything is. */
export const problemOf = (id: string, problem: string | undefined): string | undefined =>
  problem === undefined ? undefined : `${id}-problem`;

/** A field with its name above, a hint and what is wrong below. */
export const Labelled = ({ id, label, hint, problem, className, children }: Props) => (
  <div className={className}>
    <label htmlFor={id} className="label">
      {label}
    </label>
    {children}
    {hint !== undefined && <div className="mt-1 text-sm text-soft">{hint}</div>}
    {problem !== undefined && (
      <div id={problemOf(id, problem)} className="mt-1 text-sm font-semibold text-crimson">
        {problem}
      </div>
    )}
  </div>
);
