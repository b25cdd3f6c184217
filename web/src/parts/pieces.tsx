import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { HoldingView } from '@wunsch/core/api/types';
import type { HoldingKind } from '@wunsch/core/ledger/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { ApiError } from './api';
import { Marks } from './marks';
import { count, useShow } from './workshop';

export const KIND_NAMES: Record<HoldingKind, string> = {
  lot: 'lot',
  beans: 'sorted beans',
  roasted: 'roasted beans',
  nibs: 'nibs',
  husk: 'husk',
  mass: 'mass',
  block: 'untempered block',
  tempered: 'in temper',
  remelt: 'to remelt',
  bars: 'bars',
  seconds: 'seconds',
  packed: 'packed bars',
  ingredient: 'ingredient',
  packaging: 'packaging',
};

/** Where a code leads. */
export const linkOf = (code: string, kind: HoldingKind | null, isBatch = false): string =>
  isBatch || /^B\d+$/.test(code) ? `/batch/${code}` : kind === 'lot' ? `/lot/${code}` : `/tub/${code}`;

export function Code({ code, kind = null }: { code: string; kind?: HoldingKind | null }) {
  return (
    <Link className="code link" to={linkOf(code, kind)}>
      {code}
    </Link>
  );
}

/** A heading with its figure or action at the far end. */
export function Section({
  title,
  aside,
  children,
  id,
}: {
  title: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
  id?: string;
}) {
  return (
    <section className="mt-7 first:mt-0" aria-labelledby={id}>
      <div className="mb-2 flex items-baseline justify-between gap-4">
        <h2 id={id} className="text-xl">
          {title}
        </h2>
        {aside !== undefined && <div className="label text-right">{aside}</div>}
      </div>
      {children}
    </section>
  );
}

export function Figure({
  value,
  label,
  note,
  small = false,
}: {
  value: ReactNode;
  label: ReactNode;
  note?: ReactNode;
  small?: boolean;
}) {
  return (
    <div>
      <div className="label">{label}</div>
      <div className={`figure mt-1 ${small ? 'text-2xl' : 'text-4xl'}`}>{value}</div>
      {note !== undefined && <div className="mt-1 text-sm text-soft">{note}</div>}
    </div>
  );
}

export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="border-l-4 border-ripe py-0.5 pl-3 text-sm leading-snug text-soft" role="note">
      {children}
    </p>
  );
}

/**
 * A refusal in words: what happened, what was kept, what to do; with links to the steps that stand in the way.
 *
 * @param placed whether a word about a field stands beside that field already
 */
export function Refusal({
  error,
  kept = true,
  placed,
}: {
  error: unknown;
  kept?: boolean;
  placed?: ReadonlySet<string>;
}) {
  if (error === null || error === undefined) return null;
  const problem = error instanceof ApiError ? error.problem : null;
  const others = (problem?.errors ?? []).filter(
    ({ path, message }) => !isPlaced(path, placed) && !(problem?.detail ?? '').includes(message),
  );
  const steps = (problem?.facts?.['stepIds'] ?? []) as string[];
  return (
    <div role="alert" className="mt-4 rounded-md bg-crimson-wash px-4 py-3">
      <p className="font-semibold">
        {problem?.detail ?? (error instanceof Error ? error.message : 'That did not work.')}
      </p>
      {others.length > 0 && (
        <ul className="mt-1 text-sm">
          {others.map(({ path, label, message }) => (
            <li key={path + message}>
              {label} {message}
            </li>
          ))}
        </ul>
      )}
      {steps.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-x-4">
          {steps.slice(-4).map((id, index) => (
            <Link key={id} className="link inline-flex min-h-11 items-center" to={`/step/${id}`}>
              {steps.length === 1 ? 'Open the step that stands in the way' : `Step ${index + 1} in the way`}
            </Link>
          ))}
        </p>
      )}
      {kept && <p className="mt-1 text-sm text-soft">Nothing was saved; what you typed is still here.</p>}
    </div>
  );
}

/** Whether the field that a path is about has its word beside it. */
const isPlaced = (path: string, placed: ReadonlySet<string> | undefined): boolean => {
  const name = path.replace(/^command\./, '').split('.')[0] ?? '';
  return placed !== undefined && placed.size > 0 && (placed.has(name) || /^(sources|rejects|batch|at)\b/.test(name));
};

export function Loading({ error }: { error?: unknown }) {
  if (error !== undefined)
    return (
      <>
        <Refusal error={error} kept={false} />
        {error instanceof ApiError && error.problem.status === 404 && (
          <p className="mt-3">
            Its address may be mistyped, or it was taken back: look for it with Find, or{' '}
            <Link className="link" to="/">
              go to the floor
            </Link>
            .
          </p>
        )}
      </>
    );
  return (
    <p className="py-10 text-soft" aria-busy="true">
      Reading the book …
    </p>
  );
}

export function Empty({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <div className="max-w-xl py-6">
      <p className="figure text-2xl leading-tight">{title}</p>
      <p className="mt-2 text-soft">{children}</p>
      {action !== undefined && <div className="mt-4">{action}</div>}
    </div>
  );
}

/** One thing that is there: code, what it is, how much. */
export function HoldingRow({ holding, children }: { holding: HoldingView; children?: ReactNode }) {
  const show = useShow();
  const amount =
    holding.pieces > 0
      ? `${count(holding.pieces)} ${holding.pieces === 1 ? 'piece' : 'pieces'}`
      : show.mass(holding.massMg);
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <Code code={holding.code} kind={holding.kind} />
      <span className="min-w-0 flex-1 basis-36">
        <span className="block truncate">{holding.name}</span>
        <span className="block truncate text-sm text-soft">
          {KIND_NAMES[holding.kind]}
          {holding.place !== 'store' && holding.place !== 'pantry' && `, at ${STATION_NAMES[holding.place]}`}, since{' '}
          {show.day(holding.since)}
        </span>
        <Marks marks={holding.marks} allergens={holding.allergens} />
      </span>
      <span className="figure text-lg">{amount}</span>
      {children}
    </li>
  );
}
