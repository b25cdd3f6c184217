import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import {
  set,
  useForm,
  useWatch,
  type DeepPartial,
  type FieldErrors,
  type FieldValues,
  type UseFormReturn,
} from 'react-hook-form';
import { z } from 'zod/mini';
import { heavyUnit } from '@wunsch/core/units/price';
import { askedAt } from '@wunsch/core/fields/asked';
import { ApiError } from '../parts/api';
import { dropDraft, loadDraft, newKey, saveDraft } from '../parts/draft';
import { Refusal } from '../parts/pieces';
import { useHere } from '../parts/workshop';
import { inUnits, readTyped, typedOf, type Before, type Typed, type Units } from './typed';

type RecordSchema = z.core.$ZodType<unknown, unknown>;

/** A record form: what is typed, by the schema that its record is read by. */
export interface RecordForm<S extends RecordSchema = RecordSchema> {
  form: UseFormReturn<FieldValues>;
  schema: S;
  units: Units;
  /** What it began with, and how that was shown. */
  begun: Before;
  /** Whether there is something to throw away. */
  touched: boolean;
  busy: boolean;
  error: unknown;
  /** Reads it and saves it; what is refused stands at its field. @param save gets the record and the draft's own key */
  submit: (save: (record: z.output<S>, key: string) => Promise<unknown>) => Promise<boolean>;
  /** Throws what was typed away. */
  leave: () => void;
}

const Context = createContext<RecordForm | null>(null);

export function useRecordFields(): RecordForm {
  const record = useContext(Context);
  if (!record) throw new Error('A field outside of its form');
  return record;
}

/** The units that somebody types in. */
export function useUnits(): Units {
  const { massSystem, temperatureUnit } = useHere().view.settings;
  return useMemo(
    () => ({
      heavy: heavyUnit(massSystem),
      light: massSystem === 'metric' ? 'g' : 'oz',
      temperature: temperatureUnit,
    }),
    [massSystem, temperatureUnit],
  );
}

/**
 * A form for one record; a draft of it survives a reload.
 *
 * @param id which draft, unique to the form and its subject
 * @param schema reads the record: names, units, hints and bounds of its fields are its own
 * @param start what an untouched form holds; what the form does not ask for is sent on as it is here
 * @param atOnce whether a refusal stands at its field while it is typed; else when it is to be saved, and from then on
 */
export function useRecordForm<S extends RecordSchema>(
  id: string,
  schema: S,
  start: () => DeepPartial<z.input<S>>,
  atOnce = false,
): RecordForm<S> {
  const now = useUnits();
  // What is typed stays in the units in which it was begun, whatever is chosen meanwhile.
  const [units] = useState(now);
  const draftId = `record.${id}`;
  const [begun] = useState(() => {
    const value = start();
    const typed = typedOf(schema, value, units) as Record<string, Typed>;
    const draft = loadDraft<{ typed: Typed; units: Units }>(draftId);
    const kept = draft && inUnits(schema, draft.value.typed, draft.value.units, units);
    return { value, typed, kept, key: draft?.key ?? newKey() };
  });
  const [restored, setRestored] = useState(begun.kept !== null);
  const [key, setKey] = useState(begun.key);
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const form = useForm<FieldValues>({
    defaultValues: { ...begun.typed, ...(begun.kept as object | null) },
    mode: atOnce ? 'onChange' : 'onSubmit',
    reValidateMode: 'onChange',
    resolver: (typed) => {
      const { value, problems } = readTyped(schema, typed, units, begun);
      const read = z.safeParse(schema, value);
      const found = { ...problems };
      if (!read.success) for (const issue of read.error.issues) found[issue.path.join('.')] ??= issue.message;
      if (Object.keys(found).length === 0) return { values: typed, errors: {} };
      const errors: FieldErrors = {};
      for (const [path, message] of Object.entries(found))
        set(errors, path === '' ? 'root' : path, { type: 'refused', message });
      return { values: {}, errors };
    },
  });
  useEffect(
    () =>
      form.subscribe({
        formState: { values: true },
        callback: ({ values }) => {
          if (JSON.stringify(values) === JSON.stringify(begun.typed)) dropDraft(draftId);
          else saveDraft(draftId, { typed: values, units }, key);
        },
      }),
    [form, draftId, key, begun, units],
  );
  const leave = (): void => {
    dropDraft(draftId);
    form.reset(begun.typed);
    setKey(newKey());
    setRestored(false);
    setError(null);
  };
  const submit: RecordForm<S>['submit'] = async (save) => {
    let saved = false;
    setError(null);
    await form.handleSubmit(
      async (typed) => {
        setBusy(true);
        try {
          const { value } = readTyped(schema, typed, units, begun);
          await save(z.parse(schema, value), key);
          leave();
          saved = true;
        } catch (reason) {
          setError(reason);
          if (reason instanceof ApiError)
            for (const { path, message } of reason.problem.errors) {
              // The record may be a part of what was sent: `program.loadG`.
              const at = [path, path.replace(/^[^.]+\./, '')].find((one) => askedAt(schema, one.split('.')));
              if (at !== undefined) form.setError(at, { type: 'refused', message });
            }
        } finally {
          setBusy(false);
        }
      },
      (errors) => setError(new Error(unseen(errors) ?? 'Look again at what is marked.')),
    )();
    return saved;
  };
  const touched = form.formState.isDirty || restored;
  return { form, schema, units, begun, touched, busy, error, submit, leave };
}

/** What is wrong with the record as a whole, at no field. */
const unseen = (errors: FieldErrors): string | undefined => errors.root?.message;

/** What a form says, as far as it can be read: anything may be missing, at any depth. */
export type Part<T> = T extends readonly (infer Row)[]
  ? (Part<Row> | undefined)[]
  : T extends object
    ? { [K in keyof T]?: Part<T[K]> | undefined }
    : T;

/**
 * What stands in a form now, as far as it can be read: what is no figure, or is refused by its schema, is left out.
 *
 * @returns a value for what is drawn or worked out while somebody types
 */
export function useReadable<S extends RecordSchema>({ form, schema, units, begun }: RecordForm<S>): Part<z.output<S>> {
  const typed = useWatch({ control: form.control }) as Typed;
  return useMemo(() => {
    const { value } = readTyped(schema, typed, units, begun);
    const read = z.safeParse(schema, value);
    if (read.success) return read.data as Part<z.output<S>>;
    for (const { path } of read.error.issues) if (path.length > 0) set(value as object, path.join('.'), undefined);
    return value as Part<z.output<S>>;
  }, [schema, typed, units, begun]);
}

/** Where fields of a record stand that has its presses elsewhere. */
export function RecordFields({ record, children }: { record: RecordForm; children: ReactNode }) {
  return <Context.Provider value={record}>{children}</Context.Provider>;
}

/** The fields of a record, its refusal, and the presses that save or leave it. */
export function RecordSheet<S extends RecordSchema>({
  record,
  save,
  submit,
  done,
  leave,
  children,
  className = 'grid gap-4',
}: {
  record: RecordForm<S>;
  /** Sends it. */
  save: (value: z.output<S>, key: string) => Promise<unknown>;
  /** What the press that saves is called; and the one that leaves it, if there is one. */
  submit: string;
  leave?: string;
  done?: () => void;
  children: ReactNode;
  className?: string;
}) {
  const { busy, error } = record;
  return (
    <RecordFields record={record}>
      <form
        className={className}
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          event.stopPropagation();
          void record.submit(save).then((saved) => saved && done?.());
        }}
      >
        {children}
        <div className="col-span-full">
          <Refusal error={error} />
          <div className="mt-3 flex flex-wrap gap-3">
            <button type="submit" className="button button-main" disabled={busy}>
              {submit}
            </button>
            {leave !== undefined && (
              <button
                type="button"
                className="button"
                onClick={() => {
                  record.leave();
                  done?.();
                }}
              >
                {leave}
              </button>
            )}
          </div>
        </div>
      </form>
    </RecordFields>
  );
}
