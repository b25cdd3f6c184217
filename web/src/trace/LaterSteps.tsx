import { useEffect, useState } from 'react';
import type { CorrectionPreview, StepView } from '@wunsch/core/api/types';
import type { Command } from '@wunsch/core/commands';
import { FIELDS, keptG, fieldG, type FieldState } from '../entry/entry';
import { ApiError, ask, send } from '../parts/api';
import { newKey } from '../parts/draft';
import { NumberBox } from '../parts/fields';
import { unreadable } from '../parts/number';
import { stepName } from '../parts/log-words';
import { Refusal } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';

/** Refusals that correcting the later steps along can answer. */
const CHAINED = new Set(['ledger/used-since', 'ledger/later-step', 'ledger/short']);
export const concernsLater = (error: unknown): error is ApiError =>
  error instanceof ApiError && CHAINED.has(error.problem.code);

/** One weight in a command: where it stands, and what it is called. */
interface Weight {
  path: (string | number)[];
  label: string;
  grams: number;
}

/** Every weight that was typed for a step. */
function weightsOf(command: Command, codes: ReadonlyMap<string, string>): Weight[] {
  const found: Weight[] = [];
  const { kind, ...rest } = command as Command & Record<string, unknown>;
  const walk = (value: unknown, path: (string | number)[], label: string): void => {
    const key = path.at(-1);
    if (typeof value === 'number' && path.some((part) => typeof part === 'string' && /G$/.test(part)) && key !== 'barG')
      found.push({ path, label, grams: value });
    else if (Array.isArray(value)) value.forEach((row, index) => walk(row, [...path, index], label));
    else if (value !== null && typeof value === 'object') {
      const row = value as Record<string, unknown>;
      const of = typeof row['holdingId'] === 'string' ? `from ${codes.get(row['holdingId']) ?? 'it'}` : label;
      for (const [name, part] of Object.entries(row)) walk(part, [...path, name], of === '' ? name : of);
    }
  };
  for (const [name, value] of Object.entries(rest)) {
    if (['settings', 'shellSamples', 'nibSamples', 'sieve', 'how', 'program', 'passes'].includes(name)) continue;
    walk(value, [name], FIELDS[kind]?.find((spec) => spec.name === name)?.label ?? '');
  }
  return found;
}

/** The command with one weight changed. */
function withWeight(command: Command, path: readonly (string | number)[], grams: number): Command {
  const copy = structuredClone(command) as unknown as Record<string | number, unknown>;
  let at = copy;
  for (const part of path.slice(0, -1)) at = at[part] as Record<string | number, unknown>;
  const last = path.at(-1);
  if (last !== undefined) at[last] = grams;
  return copy as unknown as Command;
}

/**
 * A correction that later steps stand in the way of: all that it reaches, before and after, with the figures to set
 * right; all of it is entered together, or nothing.
 */
export function LaterSteps({
  stepId,
  body,
  done,
}: {
  stepId: string;
  /** The correction as it was sent. */
  body: Record<string, unknown>;
  done: (step: StepView) => void;
}) {
  const show = useShow();
  const massUnit = useHere().view.settings.massSystem === 'metric' ? ('g' as const) : ('oz' as const);
  const [edits, setEdits] = useState<ReadonlyMap<string, Command>>(new Map());
  const [typed, setTyped] = useState<Record<string, FieldState>>({});
  const [preview, setPreview] = useState<CorrectionPreview | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const [key] = useState(newKey);
  const along = [...edits].map(([id, command]) => ({ stepId: id, command }));
  const asked = JSON.stringify({ ...body, reason: undefined, along });
  useEffect(() => {
    let gone = false;
    ask(`/api/ledger/steps/${stepId}/preview`, JSON.parse(asked))
      .then((found) => {
        if (gone) return;
        setError(null);
        setPreview(found);
      })
      .catch((reason: unknown) => !gone && setError(reason));
    return () => {
      gone = true;
    };
  }, [asked, stepId]);
  const save = async (): Promise<void> => {
    if (!preview) return;
    setBusy(true);
    try {
      const all = preview.steps
        .filter(({ entered, command }) => JSON.stringify(entered) !== JSON.stringify(command))
        .map(({ before, command }) => ({ stepId: before.id, command }));
      const { data } = await send('POST', `/api/ledger/steps/${stepId}/correct`, { ...body, along: all }, key);
      done(data.step);
    } catch (reason) {
      setError(reason);
    } finally {
      setBusy(false);
    }
  };
  if (!preview) return <Refusal error={error} />;
  const unread = Object.values(typed).some(({ text }) => unreadable(text) !== undefined);
  return (
    <section className="mt-6" aria-label="Later steps">
      <h3 className="text-xl">
        {preview.steps.length === 1 ? 'One later step goes with it' : `${preview.steps.length} later steps go with it`}
      </h3>
      <p className="mt-1 max-w-2xl text-soft">
        What was weighed stays as it was; what was taken follows what is there now. Set right what was weighed wrong.
        All of it is entered together, or nothing.
      </p>
      <ol className="rows mt-3">
        {preview.steps.map((row) => (
          <li key={row.before.id} className="py-4">
            <div className="flex flex-wrap items-baseline justify-between gap-x-4">
              <span className="text-lg">{stepName(row.before.kind)}</span>
              <span className="text-sm text-soft">
                {show.moment(row.before.at)}, {row.before.person}
              </span>
            </div>
            <Moves before={row.before.lines} after={row.after} />
            {row.problem !== null && <p className="mt-2 font-semibold text-crimson">{row.problem}</p>}
            <div className="mt-2 grid grid-cols-2 items-end gap-3 sm:grid-cols-3">
              {weightsOf(row.command, codesOf(row.before)).map(({ path, label, grams }) => {
                const name = `${row.before.id} ${path.join('.')}`;
                const state = typed[name] ?? keptG(grams, massUnit);
                return (
                  <NumberBox
                    key={name}
                    label={label}
                    unit={massUnit}
                    value={state.text}
                    onChange={(text) => {
                      const next: FieldState = { text, unit: massUnit };
                      setTyped((now) => ({ ...now, [name]: next }));
                      const value = fieldG(next);
                      if (value === null || value < 0) return;
                      setEdits((now) =>
                        new Map(now).set(row.before.id, withWeight(now.get(row.before.id) ?? row.command, path, value)),
                      );
                    }}
                  />
                );
              })}
            </div>
          </li>
        ))}
      </ol>
      {preview.problem !== null && (
        <p role="status" className="mt-3 rounded-md bg-ripe-wash px-4 py-3">
          {preview.steps.some(({ problem }) => problem !== null)
            ? 'Some weights above still contradict each other: set them right, and all of it can be entered.'
            : preview.problem}
        </p>
      )}
      <Refusal error={error} />
      <button
        type="button"
        className="button button-main mt-4"
        disabled={busy || unread || preview.problem !== null}
        onClick={() => void save()}
      >
        {busy ? 'Saving …' : `Enter all ${preview.steps.length + 1} corrections`}
      </button>
    </section>
  );
}

const codesOf = (step: StepView): Map<string, string> =>
  new Map(
    step.lines.flatMap(({ holdingId, code }) => (holdingId !== null && code !== null ? [[holdingId, code]] : [])),
  );

/** Grams of each line, before and after. */
function Moves({ before, after }: { before: StepView['lines']; after: StepView['lines'] | null }) {
  const show = useShow();
  const name = (line: StepView['lines'][number]): string =>
    line.code ?? line.reason ?? line.loss ?? (line.outside === 'customer' ? 'buyer' : 'supplier');
  const sums = (lines: StepView['lines']): Map<string, number> => {
    const all = new Map<string, number>();
    for (const line of lines) all.set(name(line), (all.get(name(line)) ?? 0) + line.massMg);
    return all;
  };
  const was = sums(before);
  const is = after === null ? null : sums(after);
  const signed = (mg: number): string => `${mg < 0 ? '−' : '+'}${show.mass(Math.abs(mg))}`;
  return (
    <p className="mt-1 flex flex-wrap gap-x-6 gap-y-1 text-sm">
      {[...new Set([...was.keys(), ...(is?.keys() ?? [])])].map((key) => {
        const [old, now] = [was.get(key) ?? 0, is?.get(key) ?? 0];
        return (
          <span key={key}>
            <span className="text-soft">{key}</span> <span className="figure">{signed(old)}</span>
            {is !== null && now !== old && <strong className="figure"> → {signed(now)}</strong>}
          </span>
        );
      })}
    </p>
  );
}
