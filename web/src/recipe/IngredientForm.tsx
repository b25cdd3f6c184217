import { useState } from 'react';
import { useFieldArray, type Control } from 'react-hook-form';
import type { PantryRow } from '@wunsch/core/api/recipe';
import { contents, otherDryPct, type DatedFacts } from '@wunsch/core/ledger/contents';
import type { Material } from '@wunsch/core/ledger/types';
import { entryBeside, entryOf, materialFrom } from '@wunsch/core/recipe/ingredient-entry';
import { dayText } from '@wunsch/core/units/zone';
import { send } from '../parts/api';
import { Choice } from '../parts/choice';
import { readNumber } from '../parts/number';
import { Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { Field, useTyped } from '../record/Field';
import { RecordSheet, useRecordFields, useRecordForm } from '../record/form';

/** What was said of an ingredient from a day on, in short. */
const factWords = (
  { contents: made, source, allergens, pricePerKg }: DatedFacts,
  price: (perKg: number) => string,
): string =>
  [
    made == null ? '' : `fat ${made.fatPct}\u00a0%, sugar ${made.sugarPct}\u00a0%${source === '' ? '' : `, ${source}`}`,
    allergens == null ? '' : allergens.length === 0 ? 'no allergens' : `allergens ${allergens.join(', ')}`,
    pricePerKg == null ? '' : price(pricePerKg),
  ]
    .filter((words) => words !== '')
    .join('; ');

/** An ingredient: what it counts as, what it is made of and since when, what it costs. */
export function IngredientForm({
  material,
  row,
  close,
}: {
  material: Material;
  row: PantryRow | null;
  close: () => void;
}) {
  const { view } = useHere();
  const show = useShow();
  const [today] = useState(() => dayText(Date.now(), view.settings.timeZone));
  const [schema] = useState(() => entryBeside(material, today));
  const record = useRecordForm(`ingredient.${material.id || 'new'}`, schema, () =>
    entryOf(material, today, row?.contents ?? null),
  );
  return (
    <div className="max-w-4xl" role="group" aria-label={material.name || 'A new ingredient'}>
      <h2 className="mb-4 text-2xl">{material.name || 'A new ingredient'}</h2>
      <RecordSheet
        record={record}
        className=""
        submit="Save"
        leave="Leave it"
        done={close}
        save={(entry, key) => {
          const body = materialFrom(entry, material, today);
          return material.id === ''
            ? send('POST', '/api/workshop/materials', body, key)
            : send('PUT', `/api/workshop/materials/${material.id}`, body, key);
        }}
      >
        <WhatItIs />
        <MadeOf source={row?.source ?? ''} />
        <Parts material={material} />
        {material.id !== '' && (
          <Section title="Since when" aside="allergens, price and figures">
            <Field at="from" className="max-w-xs" />
            <p className="mt-2 text-sm text-soft">What was bought before that day stays what it was.</p>
            <ul className="mt-1 text-sm">
              {material.contents?.map((one) => (
                <li key={one.from}>
                  {one.from === null ? 'Always' : `From ${one.from}`}:{' '}
                  {factWords(one, (perKg) => show.priceIn(perKg, view.settings.currency))}
                </li>
              ))}
            </ul>
          </Section>
        )}
      </RecordSheet>
    </div>
  );
}

function WhatItIs() {
  const { view } = useHere();
  const cocoa = useTyped('cocoa');
  return (
    <>
      <div className="grid gap-x-6 gap-y-4 sm:grid-cols-3">
        <Field at="name" />
        <Field at="cocoa" listed />
        <Field at="allergens" />
        <Field at="pricePerKg" label={`Price (${view.settings.currency})`} />
        <Field at="origin" />
        <Field at="keepsMonths" />
        {cocoa === 'couverture' && (
          <>
            <Field at="cocoaPct" />
            <Field at="addedButterPct" />
            <Field at="sugarPct" />
          </>
        )}
      </div>
      <div className="mt-3 flex flex-wrap gap-x-8">
        {cocoa === 'none' && <Field at="sugar" />}
        <Field at="retired" />
      </div>
    </>
  );
}

/** Grams in 100 g, with what is left of them. */
function MadeOf({ source }: { source: string }) {
  const own = useTyped<boolean>('own');
  const typed = useTyped<Record<string, string>>('made');
  const read = contents.safeParse(
    Object.fromEntries(Object.entries(typed).map(([name, text]) => [name, readNumber(text) ?? undefined])),
  );
  return (
    <Section title="What 100 g of it are made of" aside={own ? 'your own figures' : source || 'not known'}>
      <Field at="own" />
      {own && (
        <>
          <div className="mt-3 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4">
            {Object.keys(contents.shape).map((name) => (
              <Field key={name} at={`made.${name}`} />
            ))}
          </div>
          {read.success && (
            <p className="mt-2 text-sm text-soft">
              The rest, {otherDryPct(read.data).toFixed(1)} g, is other dry matter.
            </p>
          )}
          <Field at="source" className="mt-3" />
        </>
      )}
    </Section>
  );
}

/** An ingredient that is made of others: their shares. */
function Parts({ material }: { material: Material }) {
  const { view } = useHere();
  const { form } = useRecordFields();
  const rows = useTyped<{ materialId: string; pct: string }[]>('madeOf');
  const { fields, append, remove } = useFieldArray({ control: form.control as Control, name: 'madeOf' });
  const error = form.formState.errors['madeOf'];
  const sum = rows.reduce((all, { pct }) => all + (readNumber(pct) ?? 0), 0);
  const message = error?.root?.message ?? error?.message;
  return (
    <Section title="Made of other ingredients" aside="a praline paste, a spice mix">
      <ul>
        {fields.map(({ id }, index) => (
          <li key={id} className="flex flex-wrap items-end gap-3 py-1">
            <span className="min-w-40 flex-1 pb-3">
              {view.materials.find((one) => one.id === rows[index]?.materialId)?.name}
            </span>
            <Field at={`madeOf.${index}.pct`} className="w-32" />
            <button type="button" className="button button-quiet" onClick={() => remove(index)}>
              Take out
            </button>
          </li>
        ))}
      </ul>
      {typeof message === 'string' && (
        <p className="text-sm font-semibold text-crimson">
          What it is made of {message}: it is {sum.toFixed(1)}&nbsp;%.
        </p>
      )}
      <Choice
        className="mt-2 w-auto! text-sm!"
        label="Another part"
        placeholder="another part …"
        value=""
        options={view.materials
          .filter(
            ({ id, kind }) =>
              kind === 'ingredient' && id !== material.id && !rows.some(({ materialId }) => materialId === id),
          )
          .map(({ id, name }) => [id, name] as const)}
        onChange={(materialId) => append({ materialId, pct: Math.max(0.1, 100 - sum).toFixed(1) })}
      />
    </Section>
  );
}
