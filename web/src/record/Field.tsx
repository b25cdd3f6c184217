import { useController, useFieldArray, useFormState, useWatch, type Control } from 'react-hook-form';
import type { ReactNode } from 'react';
import { askedAt, elementOf, type Asked } from '@wunsch/core/fields/asked';
import { DayBox } from '../parts/dates';
import { SelectBox } from '../parts/choice';
import { EditableRows } from '../parts/EditableRows';
import { Box, Chips, LongBox, NumberBox, Tick } from '../parts/fields';
import { usualWords } from '../entry/entry';
import { useRecordFields } from './form';
import { typedOf, unitShown, type Typed } from './typed';

interface FieldProps {
  /** Its path in the record: `kill.dMin`. */
  at: string;
  /** Where this screen calls it otherwise. */
  label?: string;
  hint?: ReactNode;
  example?: string;
  /** Choices as a list, not as chips; and what each is called. */
  listed?: boolean;
  choices?: readonly (readonly [value: string, label: string])[];
  onEnter?: () => void;
  className?: string;
}

function useAsked(at: string): Asked {
  const { schema } = useRecordFields();
  const asked = askedAt(schema, at.split('.'));
  if (!asked) throw new Error(`There is no ${at} in this record.`);
  return asked;
}

/** What stands in a field now. */
export const useTyped = <T extends Typed = string>(at: string): T =>
  useWatch({ control: useRecordFields().form.control as Control, name: at }) as T;

/** One field of a record: how it is typed, called and bounded comes from its schema. */
export function Field({ at, className, onEnter, ...said }: FieldProps) {
  const { form, units } = useRecordFields();
  const asked = useAsked(at);
  const { field, fieldState } = useController({ control: form.control as Control, name: at });
  const label = said.label ?? asked.label ?? at;
  const problem = fieldState.error?.message;
  const usual =
    (asked.kind === 'temp' || asked.kind === 'number' || asked.kind === 'count') && typeof field.value === 'string'
      ? usualWords({ ...asked, type: asked.kind === 'temp' ? 'temp' : 'number' }, field.value, units.temperature)
      : null;
  const hint = usual ?? said.hint ?? asked.hint;
  const unit = unitShown(asked, units);
  const example = said.example ?? asked.example;
  const shared = {
    label,
    problem,
    ...(hint === undefined ? {} : { hint }),
    ...(className === undefined ? {} : { className }),
    ...(onEnter === undefined ? {} : { onEnter }),
  };
  const choices = said.choices ?? (asked.choices ?? []).map((value) => [value, asked.words?.[value] ?? value] as const);
  const text = (field.value ?? '') as string;
  const listed = (
    <SelectBox
      label={label}
      hint={hint}
      problem={problem}
      className={className}
      value={text}
      options={choices}
      onChange={field.onChange}
    />
  );
  if (said.choices && (said.listed || asked.kind === 'text')) return listed;
  if (said.choices && (asked.kind === 'words' || asked.kind === 'series')) {
    const between = asked.kind === 'words' ? ', ' : ' ';
    return (
      <Chips
        legend={label}
        several
        options={said.choices}
        chosen={text === '' ? [] : text.split(between)}
        choose={(chosen) =>
          field.onChange(
            said.choices
              ?.map(([value]) => value)
              .filter((value) => chosen.includes(value))
              .join(between),
          )
        }
      />
    );
  }
  switch (asked.kind) {
    case 'mass':
    case 'temp':
    case 'price':
    case 'count':
    case 'number':
      return (
        <NumberBox
          {...shared}
          inputRef={field.ref}
          unit={unit}
          placeholder={example}
          value={text}
          onChange={field.onChange}
        />
      );
    case 'flag':
      return (
        <Tick checked={field.value === true} onChange={field.onChange}>
          {label}
        </Tick>
      );
    case 'choice':
      return said.listed ? (
        listed
      ) : (
        <Chips
          legend={label}
          options={choices.filter(([value]) => value !== '')}
          chosen={[text]}
          choose={([value]) => field.onChange(value ?? '')}
        />
      );
    case 'several':
      return (
        <Chips
          legend={label}
          several
          options={choices}
          chosen={(field.value ?? []) as string[]}
          choose={field.onChange}
        />
      );
    case 'day':
      return (
        <DayBox
          label={label}
          hint={hint}
          problem={problem}
          className={className}
          value={text}
          onChange={field.onChange}
        />
      );
    default:
      return asked.long ? (
        <LongBox {...shared} value={text} onChange={field.onChange} />
      ) : (
        <Box
          {...shared}
          inputRef={field.ref}
          unit={unit}
          placeholder={example}
          value={text}
          onChange={field.onChange}
        />
      );
  }
}

/** Rows of a list in a record. @param children the fields of a row, by its path */
export function Rows({
  at,
  columns,
  add,
  fewest = 0,
  first = {},
  children,
}: {
  at: string;
  columns: string;
  add: string;
  fewest?: number;
  /** What a new row begins with. */
  first?: Record<string, unknown>;
  children: (path: string, index: number) => ReactNode;
}) {
  const { form, units } = useRecordFields();
  const asked = useAsked(at);
  const { fields, append, remove } = useFieldArray({ control: form.control as Control, name: at });
  const row = elementOf(asked.schema);
  const { error } = form.getFieldState(at, useFormState({ control: form.control, name: at }));
  const message = error?.root?.message ?? error?.message;
  return (
    <>
      <EditableRows
        rows={fields}
        columns={columns}
        fields={(_, index) => children(`${at}.${index}`, index)}
        leaveOut={remove}
        fewest={fewest}
        add={() => row && append(typedOf(row, first, units))}
        addWords={add}
      />
      {message !== undefined && <p className="text-sm font-semibold text-crimson">{message}</p>}
    </>
  );
}
