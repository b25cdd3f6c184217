import { useContext, useState, type ReactNode } from 'react';
import type { HoldingView } from '@wunsch/core/api/types';
import type { Command } from '@wunsch/core/ledger/commands';
import type { Station } from '@wunsch/core/workshop/stations';
import { ApiError, send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { KIND_NAMES, Refusal } from '../parts/pieces';
import { NOBODY } from '../parts/save';
import { unreadable } from '../parts/number';
import { useHere, useShow } from '../parts/workshop';
import {
  fieldG,
  FIELDS,
  readFields,
  textOfG,
  readNumber,
  type Fields,
  type FieldSpec,
  type FieldState,
  type Problems,
} from './entry';
import { EntrySurface } from './EntrySurface';
import { MassBar, type Part } from './MassBar';
import { SavedHere, SavedNote, type Saved, type SavedEntry } from './SavedNote';

export type { Saved };

export interface Entry {
  fields: Fields;
  /** Holdings chosen to take from. */
  picked: string[];
  machineId: string | null;
}

/** What stands below the running sum gets to see, and may change. */
export interface Below {
  fields: Fields;
  setField: (name: string, state: FieldState) => void;
  inMg: number;
  /** Codes of what was picked; empty where it was fixed before. */
  codes: string[];
}

interface Props {
  kind: Command['kind'];
  /** Which draft this is: one per station and subject. */
  draftId: string;
  /** What can be taken, to be picked; left out when the form takes nothing (or a fixed thing). */
  candidates?: readonly HoldingView[];
  /** What a work under way has taken already. */
  fixed?: readonly { holdingId: string; massMg: number; pieces: number }[] | undefined;
  initial?: Fields;
  initialPicked?: readonly string[];
  suggestions?: Record<string, string>;
  /** What is usual for what was picked: filled in while nothing is typed. */
  propose?: (chosen: readonly HoldingView[], fields: Fields) => Record<string, string>;
  /** Grams to take of what was picked (codes) where nothing is typed; all there is when left out. */
  takeG?: (codes: readonly string[]) => number | undefined;
  station: Station | null;
  /** Fields to ask; the usual ones of this kind when left out. */
  specs?: readonly FieldSpec[];
  /** More to ask about what was picked. */
  ask?: (chosen: readonly HoldingView[]) => readonly FieldSpec[];
  /** Completes what the fields say to a whole command. */
  finish: (
    values: Record<string, unknown>,
    sources: { holdingId: string; massG?: number; pieces?: number }[],
    entry: Entry,
  ) => Record<string, unknown>;
  path: string;
  submit: string;
  /** Named parts of what went in, for the running sum. */
  parts?: (values: Record<string, unknown>) => Part[];
  restName?: string;
  restTone?: Part['tone'];
  minutes?: number;
  kwh?: number;
  machineId?: string | null;
  onSaved?: (saved: Saved) => void;
  head?: ReactNode;
  /** More to send beside the command, such as the reason of a correction. */
  extra?: (entry: Entry) => Record<string, unknown>;
  pickTitle?: string;
  /** How many of the candidates are shown at once; the rest on asking. */
  shownFirst?: number;
  before?: ReactNode;
  /** Whose work it is, when not that of the person at the bench. */
  as?: string;
  /** Below the running sum, from what is typed so far. */
  below?: (state: Below) => ReactNode;
  /** Below the save, where it should be at hand before everything is read. */
  after?: (state: Below) => ReactNode;
  /** What of the entry cannot be read, in words: then nothing is sent. */
  problem?: (entry: Entry) => string | null;
  /** What can be done about a refusal, from what was sent. */
  refused?: (error: unknown, body: Record<string, unknown>) => ReactNode;
  /** Sends it another way than as a step; null means there is no step to show yet. */
  send?: (entry: Outgoing) => Promise<Saved | null>;
}

export interface Outgoing {
  sources: { holdingId: string; massG?: number; pieces?: number }[];
  personId: string;
  machineId: string | null;
  at: string | undefined;
  key: string;
}

const WHEN: FieldSpec[] = [
  { name: '~minutes', label: 'Hands-on minutes', type: 'number', optional: true, unit: 'min' },
  { name: '~kwh', label: 'Energy', type: 'number', optional: true, unit: 'kWh' },
];

const AT: FieldSpec = { name: '~at', label: 'When', type: 'text', optional: true };
const WHEN_FIELDS = ['~at', ...WHEN.map(({ name }) => name)];

/** One entry at a bench: what is taken, what came out, the sum, who and when; a draft until it is saved. */
export function StepForm(props: Props) {
  const { kind, candidates = [], fixed, finish, path, submit, station } = props;
  const here = useHere();
  const { view } = here;
  const personId = props.as ?? here.personId;
  const show = useShow();
  const { massSystem, temperatureUnit } = view.settings;
  const massUnit = massSystem === 'metric' ? 'g' : 'oz';
  const draft = useDraft<Entry>(props.draftId, () => ({
    fields: { ...props.initial },
    picked: [...(props.initialPicked ?? [])],
    machineId: props.machineId ?? null,
  }));
  const [problems, setProblems] = useState<Problems>({});
  const [error, setError] = useState<unknown>(null);
  const report = useContext(SavedHere);
  const [saved, setSaved] = useState<SavedEntry | null>(null);
  const [busy, setBusy] = useState(false);
  const [sent, setSent] = useState<Record<string, unknown>>({});
  const { picked, machineId } = draft.value;
  const chosen = candidates.filter(({ id }) => picked.includes(id));
  const proposed = props.propose?.(chosen, draft.value.fields) ?? {};
  // A proposal counts until something is typed over it.
  const fields: Fields = {
    ...Object.fromEntries(Object.entries(proposed).map(([name, text]) => [name, { text }])),
    ...draft.value.fields,
  };
  const takes = chosen.map((holding): FieldSpec => takeSpec(holding, show.mass));
  const asked = [...(props.ask?.(chosen) ?? []), ...(props.specs ?? FIELDS[kind] ?? [])];
  const specs = [...takes, ...asked];
  const all = [...specs, ...WHEN];
  const suggestions: Record<string, string> = { ...props.suggestions };
  const wantedG = props.takeG?.(chosen.map(({ code }) => code));
  const usualG = usualTakes(chosen, wantedG);
  for (const holding of chosen)
    suggestions[`take.${holding.id}`] =
      wantedG === undefined || holding.pieces > 0 ? 'all' : textOfG(usualG.get(holding.id) ?? 0, massUnit);
  if (props.minutes !== undefined) suggestions['~minutes'] = String(Math.round(props.minutes));
  if (props.kwh !== undefined) suggestions['~kwh'] = props.kwh.toFixed(2);

  const setField = (name: string, state: FieldState): void => {
    setProblems(({ [name]: _, ...rest }) => rest);
    draft.set((entry) => ({ ...entry, fields: { ...entry.fields, [name]: state } }));
  };
  const sourcesOf = (): { holdingId: string; massG?: number; pieces?: number }[] =>
    fixed
      ? fixed.map(({ holdingId, massMg, pieces }) =>
          pieces > 0 ? { holdingId, pieces } : { holdingId, massG: massMg / 1000 },
        )
      : chosen.map((holding) => {
          const state = fields[`take.${holding.id}`];
          if (holding.pieces > 0)
            return { holdingId: holding.id, pieces: readNumber(state?.text ?? '') ?? holding.pieces };
          return { holdingId: holding.id, massG: fieldG(state) ?? usualG.get(holding.id) ?? 0 };
        });
  const read = readFields(kind, fields, temperatureUnit, asked);
  const inMg = fixed
    ? fixed.reduce((sum, { massMg }) => sum + massMg, 0)
    : chosen.reduce((sum, holding, index) => {
        const source = sourcesOf()[index];
        return (
          sum +
          (source?.pieces !== undefined
            ? (holding.massMg * source.pieces) / Math.max(1, holding.pieces)
            : (source?.massG ?? 0) * 1000)
        );
      }, 0);

  const save = async (): Promise<void> => {
    setError(null);
    if (personId === null) {
      setError(new Error(NOBODY));
      return;
    }
    const wanted = new Set(asked.map(({ name }) => name));
    const wrong = Object.fromEntries(Object.entries(read.problems).filter(([name]) => wanted.has(name)));
    for (const { name } of [...takes, ...WHEN]) {
      const unread = unreadable(fields[name]?.text ?? '');
      if (unread !== undefined) wrong[name] = unread;
    }
    const when = fields['~at']?.text ?? '';
    const at = show.instant(when);
    if (when !== '' && at === undefined) wrong['~at'] = 'is no time';
    if (candidates.length > 0 && !fixed && chosen.length === 0) {
      setError(new Error('Choose what goes in.'));
      setProblems(wrong);
      return;
    }
    if (Object.keys(wrong).length > 0) {
      setProblems(wrong);
      setError(
        new Error(
          `Look again at: ${Object.keys(wrong)
            .map((name) => [...all, AT].find((spec) => spec.name === name)?.label ?? name)
            .join(', ')}.`,
        ),
      );
      return;
    }
    const unread = props.problem?.(draft.value) ?? null;
    if (unread !== null) {
      setError(new Error(unread));
      return;
    }
    setBusy(true);
    try {
      if (props.send) {
        await props.send({
          sources: sourcesOf().filter(({ massG, pieces }) => (pieces ?? 0) + (massG ?? 0) > 0),
          personId,
          machineId,
          at,
          key: draft.key,
        });
        draft.clear();
        return;
      }
      const body = {
        command: { kind, ...finish(read.values, sourcesOf(), draft.value) },
        personId,
        machineId,
        minutes: readNumber(fields['~minutes']?.text ?? '') ?? props.minutes ?? 0,
        energyKwh: readNumber(fields['~kwh']?.text ?? '') ?? props.kwh ?? 0,
        ...(at === undefined ? {} : { at }),
        ...props.extra?.(draft.value),
      };
      setSent(body);
      const answer = await send<Saved>('POST', path, body, draft.key);
      draft.clear();
      setProblems({});
      const note = { saved: answer.data, replayed: answer.replayed };
      if (report) report(note);
      else setSaved(note);
      props.onSaved?.(answer.data);
    } catch (reason) {
      setError(reason);
      if (reason instanceof ApiError) setProblems(fieldProblems(reason, chosen, specs));
    } finally {
      setBusy(false);
    }
  };

  const machineName = view.machines.find(({ id }) => id === machineId)?.name;
  // What goes into the cost is said, also where nobody typed it.
  const counted = [
    ...(machineName === undefined ? [] : [machineName]),
    `${Math.round(readNumber(fields['~minutes']?.text ?? '') ?? props.minutes ?? 0)} min by hand`,
    `${(readNumber(fields['~kwh']?.text ?? '') ?? props.kwh ?? 0).toFixed(2)} kWh`,
  ].join(', ');
  const machines = station === null ? [] : view.machines.filter((machine) => machine.station === station);
  const below: Below = { fields, setField, inMg, codes: chosen.map(({ code }) => code) };
  const details = (
    <details className="mt-5" open={WHEN_FIELDS.some((name) => problems[name] !== undefined) || undefined}>
      <summary className="label min-h-11 cursor-pointer py-3">
        {machines.length > 0 ? 'Machine, time and minutes' : 'Time and minutes'}: {counted}
      </summary>
      {machines.length > 0 && (
        <div className="mb-3 flex flex-wrap gap-2">
          {machines.map((machine) => (
            <button
              key={machine.id}
              type="button"
              className="chip"
              aria-pressed={machineId === machine.id}
              onClick={() =>
                draft.set((entry) => ({ ...entry, machineId: entry.machineId === machine.id ? null : machine.id }))
              }
            >
              {machine.name}
            </button>
          ))}
        </div>
      )}
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-3">
        {WHEN.map((spec) => (
          <label key={spec.name} className="label">
            {spec.label} ({spec.unit})
            <input
              className="entry"
              inputMode="decimal"
              placeholder={suggestions[spec.name] ?? '0'}
              value={fields[spec.name]?.text ?? ''}
              aria-invalid={problems[spec.name] !== undefined}
              onChange={(event) => setField(spec.name, { text: event.target.value })}
            />
            {problems[spec.name] !== undefined && (
              <span className="mt-1 block text-sm font-semibold text-crimson">{problems[spec.name]}</span>
            )}
          </label>
        ))}
        <label className="label">
          When (empty: now)
          <input
            type="datetime-local"
            className="entry"
            value={fields['~at']?.text ?? ''}
            aria-invalid={problems['~at'] !== undefined}
            onChange={(event) => setField('~at', { text: event.target.value })}
          />
          {problems['~at'] !== undefined && (
            <span className="mt-1 block text-sm font-semibold text-crimson">{problems['~at']}</span>
          )}
        </label>
      </div>
    </details>
  );
  return (
    <div>
      {candidates.length > 0 && !fixed && (
        <Picker
          candidates={candidates}
          picked={picked}
          first={props.shownFirst ?? 8}
          title={props.pickTitle ?? 'What goes in'}
          toggle={(id) =>
            draft.set((entry) => ({
              ...entry,
              picked: entry.picked.includes(id) ? entry.picked.filter((x) => x !== id) : [...entry.picked, id],
            }))
          }
        />
      )}
      <EntrySurface
        specs={specs}
        fields={fields}
        setField={setField}
        problems={problems}
        suggestions={suggestions}
        massUnit={massUnit}
        onSubmit={() => void save()}
        before={props.before}
      >
        {props.parts && (
          <MassBar
            inMg={inMg}
            parts={props.parts(read.values)}
            restName={props.restName ?? 'not accounted for yet'}
            restTone={props.restTone ?? 'missing'}
          />
        )}
        {props.below?.(below)}
        {props.head}
        {!props.after && details}
        <Refusal error={error} />
        <div className="mt-5 flex flex-wrap items-center gap-3">
          <button type="submit" className="button button-main min-w-44 text-lg" disabled={busy}>
            {busy ? 'Saving …' : submit}
          </button>
          {draft.touched && (
            <button
              type="button"
              className="button button-quiet"
              onClick={() => {
                draft.clear();
                setProblems({});
                setError(null);
              }}
            >
              Throw this draft away
            </button>
          )}
        </div>
        {error !== null && props.refused?.(error, sent)}
        {props.after?.(below)}
        {props.after && details}
      </EntrySurface>
      {saved && <SavedNote entry={saved} />}
    </div>
  );
}

/** Grams that each holding gives where nothing is typed: all it has, or in turn until there is enough. */
function usualTakes(chosen: readonly HoldingView[], takeG = Infinity): Map<string, number> {
  let left = takeG;
  return new Map(
    chosen.map(({ id, freeMg }) => {
      const massG = Math.min(freeMg / 1000, left);
      left -= massG;
      return [id, massG];
    }),
  );
}

const takeSpec = (holding: HoldingView, mass: (mg: number) => string): FieldSpec => ({
  name: `take.${holding.id}`,
  label: `${holding.code}, of ${holding.pieces > 0 ? `${holding.pieces} pieces` : mass(holding.freeMg)}`,
  type: holding.pieces > 0 ? 'pieces' : 'mass',
  optional: true,
});

/** Puts the server's field problems at the fields they are about. */
function fieldProblems(error: ApiError, chosen: readonly HoldingView[], specs: readonly FieldSpec[]): Problems {
  const problems: Problems = {};
  for (const { path, message } of error.problem.errors) {
    const clean = path.replace(/^command\./, '');
    const source = /^sources\.(\d+)/.exec(clean);
    const takings = /^sources\.(\d+)\.takings/.exec(clean);
    const reject = /^rejects\.(\d+)/.exec(clean);
    const name = takings
      ? `takings.${chosen[Number(takings[1])]?.id ?? ''}`
      : source
        ? `take.${chosen[Number(source[1])]?.id ?? ''}`
        : reject
          ? 'goodG'
          : (specs.find((spec) => spec.at === clean)?.name ?? clean.split('.')[0] ?? clean);
    if (specs.some((spec) => spec.name === name)) problems[name] = message;
  }
  return problems;
}

function Picker({
  candidates,
  picked,
  toggle,
  title,
  first,
}: {
  first: number;
  candidates: readonly HoldingView[];
  picked: readonly string[];
  toggle: (id: string) => void;
  title: string;
}) {
  const show = useShow();
  const [all, setAll] = useState(false);
  const shown = all ? candidates : candidates.filter((holding, index) => index < first || picked.includes(holding.id));
  return (
    <fieldset className="mb-6">
      <legend className="label mb-2">{title}</legend>
      <div className="grid gap-2 sm:grid-cols-2">
        {shown.map((holding) => {
          const on = picked.includes(holding.id);
          return (
            <button
              key={holding.id}
              type="button"
              aria-pressed={on}
              onClick={() => toggle(holding.id)}
              className={`flex min-h-[56px] items-center gap-3 rounded-lg px-3 py-1.5 text-left ${on ? 'bg-ink text-on-ink' : 'bg-sheet hover:bg-sunk'}`}
            >
              <span className="code text-lg">{holding.code}</span>
              <span className="min-w-0 flex-1 text-sm leading-tight">
                <span className="block truncate">{holding.name}</span>
                <span className={`block truncate ${on ? 'opacity-80' : 'text-soft'}`}>
                  {KIND_NAMES[holding.kind]}, {show.day(holding.since)}
                </span>
              </span>
              <span className="figure text-lg whitespace-nowrap">
                {holding.pieces > 0 ? `${holding.pieces}` : show.mass(holding.freeMg)}
              </span>
            </button>
          );
        })}
      </div>
      {candidates.length > shown.length && (
        <button type="button" className="button button-quiet mt-1" onClick={() => setAll(true)}>
          {candidates.length - shown.length} more that would fit
        </button>
      )}
    </fieldset>
  );
}
