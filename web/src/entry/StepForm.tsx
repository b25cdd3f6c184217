import { useContext, useRef, useState, type ReactNode } from 'react';
import { doubts as doubtsOf, type Doubt } from '@wunsch/core/entry/doubt';
import { nearbyOf } from '@wunsch/core/entry/nearby';
import { massUnitFor, type MassUnit } from '@wunsch/core/units/mass';
import { heavyUnit } from '@wunsch/core/units/price';
import { machinesAt } from '@wunsch/core/workshop/machines';
import { ApiError, send } from '../parts/api';
import { useDraft, useKept } from '../parts/draft';
import { NOBODY } from '../parts/save';
import { typedNumber } from '../parts/number';
import { count, MassUnitHere, useHere, useShow } from '../parts/workshop';
import { AT, costOf, Details, WHEN } from './Details';
import { DoubtPanel } from './DoubtPanel';
import {
  FIELDS,
  inUnit,
  isMass,
  massUnitOf,
  readFields,
  textOfG,
  type Fields,
  type FieldSpec,
  type FieldState,
  type Problems,
} from './entry';
import { EntrySurface } from './EntrySurface';
import { GatePanel, gatesIn, type Answer } from './GatePanel';
import { Refused } from './Refused';
import { MassBar } from './MassBar';
import type { Below, Choosing, Entry, Slot, StepFormProps } from './step-form';
import {
  fieldProblems,
  figuresOf,
  massMgOf,
  scaled,
  sourcesFixed,
  sourcesOf,
  takesNear,
  takeSpec,
  unread,
  usualTakes,
  withUnit,
  type Source,
} from './takes';
import { Picker } from './Picker';
import { SavedHere, SavedNote, type SavedEntry } from './SavedNote';

/** One entry at a bench: what is taken, what came out, the sum, who and when; a draft until it is saved. */
export function StepForm(props: StepFormProps) {
  const { kind, candidates = [], fixed, finish, path = '/api/ledger/steps', submit, station } = props;
  const here = useHere();
  const { view } = here;
  const personId = props.as ?? here.personId;
  const screenUnit = useContext(MassUnitHere);
  const { massSystem, temperatureUnit } = view.settings;
  const units = { temperature: temperatureUnit, heavy: heavyUnit(massSystem) };
  const draft = useDraft<Entry>(props.draftId, () => ({
    fields: { ...props.initial },
    picked: [...(props.initialPicked ?? [])],
    machineId: props.machineId ?? null,
    choices: {},
  }));
  const [word, setWord, forgetWord] = useKept(`stop.${props.draftId}`, '');
  const clear = (): void => {
    draft.clear();
    forgetWord();
  };
  const [problems, setProblems] = useState<Problems>({});
  const [error, setError] = useState<unknown>(null);
  const report = useContext(SavedHere);
  const [saved, setSaved] = useState<SavedEntry | null>(null);
  const [busy, setBusy] = useState(false);
  const [sent, setSent] = useState<Record<string, unknown>>({});
  const [asking, setAsking] = useState<Doubt[]>([]);
  const settled = useRef(new Set<string>());
  const root = useRef<HTMLDivElement>(null);
  const { picked, machineId } = draft.value;
  const choices = draft.value.choices ?? {};
  const chosen = candidates.filter(({ id }) => picked.includes(id));
  const largest = Math.max(
    0,
    ...(fixed ?? []).map(({ massMg }) => massMg),
    ...(chosen.length > 0 ? chosen : candidates).map(({ massMg }) => massMg),
  );
  const massUnit: MassUnit =
    (choices['~unit'] as MassUnit | undefined) ?? screenUnit ?? massUnitFor(largest, massSystem);
  const show = useShow(massUnit);
  const proposed = props.propose?.(chosen, draft.value.fields) ?? {};
  // A proposal counts until something is typed over it.
  const fields: Fields = {
    ...Object.fromEntries(Object.entries(proposed).map(([name, text]) => [name, { text }])),
    ...draft.value.fields,
  };
  const takes = chosen.map((holding): FieldSpec => takeSpec(holding, show.mass));
  const asked = [...(props.ask?.(chosen) ?? []), ...(props.specs ?? FIELDS[kind] ?? [])];
  const specs = [...takes, ...asked];
  const all = [...specs, ...WHEN, AT];
  const suggestions: Record<string, string> = { ...props.suggestions };
  const wantedG = props.takeG?.(chosen.map(({ code }) => code));
  const usualG = usualTakes(chosen, wantedG);
  for (const holding of chosen)
    suggestions[`take.${holding.id}`] =
      wantedG === undefined || holding.pieces > 0 ? 'all' : textOfG(usualG.get(holding.id) ?? 0, massUnit);

  const change = (next: (entry: Entry) => Entry): void => {
    report?.(null);
    setSaved(null);
    draft.set(next);
  };
  const setField = (name: string, state: FieldState): void => {
    setProblems(({ [name]: _, ...rest }) => rest);
    setAsking((rows) => rows.filter(({ field }) => field !== name));
    change((entry) => ({ ...entry, fields: { ...entry.fields, [name]: state } }));
  };
  const choosing: Choosing = {
    choices,
    fields,
    write: (name, text) => setField(name, { text }),
    choose: (name, value) => change((entry) => ({ ...entry, choices: { ...entry.choices, [name]: value } })),
  };
  /** All weights of the screen go into the other unit together: no two units stand side by side. */
  const changeUnit = (unit: MassUnit): void =>
    change((entry) => ({
      ...entry,
      choices: { ...entry.choices, '~unit': unit },
      fields: Object.fromEntries(
        Object.entries(entry.fields).map(([name, state]) => {
          const spec = specs.find((row) => row.name === name);
          return [name, spec && isMass(spec) && spec.unit === undefined ? inUnit(state, unit) : state];
        }),
      ),
    }));
  const joined = props.joins?.(draft.value) ?? [];
  const joinedMg = joined.reduce((sum, { massG }) => sum + Math.round(1000 * massG), 0);
  const sources = fixed ? sourcesFixed(fixed) : sourcesOf(chosen, fields, massUnit, usualG);
  const read = readFields(kind, withUnit(fields, specs, massUnit), units, asked);
  const takenMg = fixed
    ? fixed.reduce((sum, { massMg }) => sum + massMg, 0)
    : chosen.reduce((sum, holding, index) => sum + massMgOf(holding, sources[index]), 0);
  const inMg = takenMg + joinedMg;
  const taken: Source[] = [...sources, ...joined];

  const focusFirst = (): void => {
    requestAnimationFrame(() => root.current?.querySelector<HTMLElement>('form [aria-invalid=true]')?.focus());
  };
  const fail = (wrong: Problems, words: string | null): void => {
    setProblems(wrong);
    setError(words === null ? null : new Error(words));
    focusFirst();
  };

  /** Figures that are ten times away from what went in, from what is there or from the maker's past. */
  const askedAgain = (): Doubt[] => {
    const ofTakes = takesNear(chosen, fields, massUnit, props.usualInG);
    return doubtsOf(
      { ...figuresOf(read.values), ...ofTakes.figures },
      { ...nearbyOf(kind, inMg / 1000, read.values), ...props.past, ...ofTakes.near },
      settled.current,
    );
  };

  const save = async (overrides: Answer[] = []): Promise<void> => {
    setError(null);
    report?.(null);
    setSaved(null);
    if (personId === null) {
      setError(new Error(NOBODY));
      return;
    }
    const wanted = new Set(asked.map(({ name }) => name));
    const wrong: Problems = {
      ...Object.fromEntries(Object.entries(read.problems).filter(([name]) => wanted.has(name))),
      ...unread([...takes, ...WHEN], fields, massUnit),
    };
    const when = fields['~at']?.text ?? '';
    const at = show.instant(when);
    if (when !== '' && at === undefined) wrong['~at'] = 'is no time';
    if (candidates.length > 0 && !fixed && chosen.length === 0) return fail(wrong, 'Choose what goes in.');
    if (Object.keys(wrong).length > 0) return fail(wrong, null);
    const problem = props.problem?.(draft.value) ?? null;
    if (problem !== null) return fail({}, problem);
    const open = askedAgain();
    setAsking(open);
    if (open.length > 0) return;
    setBusy(true);
    try {
      if (props.send) {
        await props.send({
          sources: taken.filter(({ massG, pieces }) => (pieces ?? 0) + (massG ?? 0) > 0),
          personId,
          machineId,
          at,
          key: draft.key,
          overrides,
          values: finish(read.values, taken, draft.value),
        });
        clear();
        return;
      }
      const cost = costOf(fields, props.minutes, props.kwh);
      const body = {
        command: { kind, ...finish(read.values, taken, draft.value) },
        personId,
        machineId,
        minutes: cost.minutes,
        energyKwh: cost.kwh,
        ...(at === undefined ? {} : { at }),
        ...(overrides.length > 0 ? { overrides } : {}),
        ...props.extra?.(draft.value),
      };
      setSent(body);
      const answer = await send('POST', path, body, draft.key);
      clear();
      settled.current.clear();
      setProblems({});
      const note = { saved: answer.data, replayed: answer.replayed };
      if (report) report(note);
      else setSaved(note);
      props.onSaved?.(answer.data);
    } catch (reason) {
      setError(reason);
      if (reason instanceof ApiError && gatesIn(reason).length === 0) {
        setProblems(fieldProblems(reason, chosen, specs));
        focusFirst();
      }
    } finally {
      setBusy(false);
    }
  };

  const specOf = (field: string): FieldSpec | undefined => all.find(({ name }) => name === field);
  const answer = ({ field, typed }: Doubt, meant: number): void => {
    settled.current.add(`${field} ${meant}`);
    setAsking((rows) => rows.filter((row) => row.field !== field));
    if (meant === typed) return;
    const spec = specOf(field);
    const state = fields[field] ?? { text: '' };
    setField(
      field,
      spec && isMass(spec)
        ? spec.type === 'masses'
          ? scaled(state, meant / typed, massUnit)
          : { text: textOfG(meant, massUnitOf(spec, massUnit)), unit: massUnitOf(spec, massUnit) }
        : { text: typedNumber(meant) },
    );
  };
  const figure = (field: string, value: number): string => {
    const spec = specOf(field);
    if (spec && isMass(spec)) return show.mass(value * 1000);
    return `${Number.isInteger(value) ? count(value) : value}${spec?.unit === undefined ? '' : ` ${spec.unit}`}`;
  };

  const gates = gatesIn(error);
  const person = view.people.find(({ id }) => id === personId)?.name ?? '';
  const machines = station === null ? [] : machinesAt(view.machines, station, machineId);
  const below: Below = { fields, setField, inMg, codes: chosen.map(({ code }) => code) };
  const slot = (content: Slot): ReactNode => (typeof content === 'function' ? content(choosing) : content);
  const placed = new Set(Object.keys(problems));
  const details = (
    <Details
      machines={machines}
      machineId={machineId}
      chooseMachine={(id) => change((entry) => ({ ...entry, machineId: id }))}
      fields={fields}
      setField={setField}
      problems={problems}
      minutes={props.minutes}
      kwh={props.kwh}
    />
  );
  return (
    <MassUnitHere value={massUnit}>
      <div ref={root}>
        {candidates.length > 0 && !fixed && (
          <Picker
            candidates={candidates}
            picked={picked}
            first={props.shownFirst ?? 8}
            title={props.pickTitle ?? 'What goes in'}
            toggle={(id) =>
              change((entry) => ({
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
          changeUnit={changeUnit}
          begun={draft.touched}
          onSubmit={() => void save()}
          before={slot(props.before)}
          beside={props.beside}
          foot={
            <>
              <button type="submit" className="button button-main min-w-44 text-lg" disabled={busy}>
                {busy ? 'Saving …' : submit}
              </button>
              {Object.keys(problems).length > 0 && (
                <span className="text-sm font-semibold text-crimson" role="status">
                  {wordsOf(Object.keys(problems), (name) => specOf(name)?.label ?? name)}
                </span>
              )}
              {draft.touched && (
                <button
                  type="button"
                  className="button button-quiet"
                  onClick={() => {
                    clear();
                    setProblems({});
                    setAsking([]);
                    setError(null);
                  }}
                >
                  Throw this draft away
                </button>
              )}
            </>
          }
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
          {slot(props.head)}
          {!props.after && details}
          {asking.length > 0 && (
            <DoubtPanel
              doubts={asking}
              label={(field) => specOf(field)?.label ?? field}
              show={figure}
              answer={answer}
            />
          )}
          {gates.length > 0 ? (
            <GatePanel
              word={word}
              setWord={setWord}
              gates={gates}
              person={person}
              busy={busy}
              goOn={(answers) => void save(answers)}
            />
          ) : (
            error !== null && <Refused error={error} placed={placed} />
          )}
          {error !== null && gates.length === 0 && props.refused?.(error, sent)}
          {props.after?.(below)}
          {props.after && details}
        </EntrySurface>
        {saved && <SavedNote entry={saved} />}
      </div>
    </MassUnitHere>
  );
}

/** `Look at: Nibs, Husk.` */
const wordsOf = (names: readonly string[], label: (name: string) => string): string =>
  `Look at: ${names.map(label).join(', ')}.`;
