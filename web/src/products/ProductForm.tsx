import { useState } from 'react';
import type { ProductsView, ProductView } from '@wunsch/core/api/products';
import { FORM_WORDS, FORMS, ROLE_WORDS, ROLES, type Form, type Role } from '@wunsch/core/products/records';
import { send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { EditableRows } from '../parts/EditableRows';
import { SelectBox } from '../parts/choice';
import { Box, Chips, NumberBox, Tick } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';

interface Typed {
  name: string;
  recipeIds: string[];
  mouldId: string;
  declaredG: string;
  form: Form;
  pack: 'retail' | 'bulk';
  parts: { materialId: string; role: Role; grams: string }[];
  shellSec: string;
  packaging: { materialId: string; perPiece: string }[];
  keepsMonths: string;
  gtin: string;
  prices: { channel: string; price: string }[];
  retired: boolean;
  why: string;
}

const EMPTY: Typed = {
  name: '',
  recipeIds: [],
  mouldId: '',
  declaredG: '',
  form: 'plain',
  pack: 'retail',
  parts: [],
  shellSec: '',
  packaging: [],
  keepsMonths: '',
  gtin: '',
  prices: [{ channel: '', price: '' }],
  retired: false,
  why: '',
};

const text = (value: number | null): string => (value === null ? '' : typedNumber(value));

function typedOf({ facts }: ProductView): Typed {
  return {
    ...EMPTY,
    ...facts,
    mouldId: facts.mouldId ?? '',
    declaredG: text(facts.declaredG),
    shellSec: text(facts.shellSec),
    keepsMonths: text(facts.keepsMonths),
    gtin: facts.gtin ?? '',
    parts: facts.parts.map((row) => ({ ...row, grams: text(row.grams) })),
    packaging: facts.packaging.map((row) => ({ ...row, perPiece: text(row.perPiece) })),
    prices: facts.prices.map((row) => ({ ...row, price: text(row.price) })),
    why: '',
  };
}

export const productDraft = (id: string | null): string => `product.${id ?? 'new'}`;

const FORM_OPTIONS = FORMS.map((form) => [form, FORM_WORDS[form]] as const);
const PACKS = [
  ['retail', 'by the piece'],
  ['bulk', 'in bulk, to kitchens'],
] as const;
const USUAL_ROLE: Readonly<Partial<Record<Form, Role>>> = { topped: 'topping', filled: 'filling' };

/** A product to be typed: saved, it is the next version; packings that were keep theirs. */
export function ProductForm({
  view,
  product,
  done,
}: {
  view: ProductsView;
  product: ProductView | null;
  done: () => void;
}) {
  const { personId, view: here } = useHere();
  const draft = useDraft<Typed>(productDraft(product?.id ?? null), () => (product ? typedOf(product) : EMPTY));
  const typed = draft.value;
  const [wrong, setWrong] = useState<string[]>([]);
  const { busy, error, run, fail } = useSave();
  const set = (next: Partial<Typed>): void => draft.set((now) => ({ ...now, ...next }));
  const ingredients = here.materials.filter(({ kind }) => kind === 'ingredient');
  const packagings = here.materials.filter(({ kind }) => kind === 'packaging');
  const row = <K extends 'parts' | 'packaging' | 'prices'>(
    key: K,
    index: number,
    next: Partial<Typed[K][number]>,
  ): void =>
    draft.set((now) => ({ ...now, [key]: now[key].map((own, i) => (i === index ? { ...own, ...next } : own)) }));
  const without = (key: 'parts' | 'packaging' | 'prices', index: number): void =>
    draft.set((now) => ({ ...now, [key]: now[key].filter((_, i) => i !== index) }));
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    const problems: string[] = [];
    const number = (own: string, label: string): number => {
      const value = readNumber(own);
      if (value === null) problems.push(`${label} is not a number.`);
      return value ?? 0;
    };
    const orNull = (own: string, label: string): number | null => (own.trim() === '' ? null : number(own, label));
    const prices = typed.prices.filter(({ channel, price }) => channel.trim() !== '' || price.trim() !== '');
    const facts = {
      name: typed.name,
      recipeIds: typed.recipeIds,
      mouldId: typed.mouldId === '' ? null : typed.mouldId,
      declaredG: number(typed.declaredG, 'What a piece weighs'),
      form: typed.form,
      pack: typed.pack,
      parts: typed.parts.map(({ materialId, role, grams }, i) => ({
        materialId,
        role,
        grams: number(grams, `Grams of the ${i + 1}. part`),
      })),
      shellSec: typed.form === 'filled' ? orNull(typed.shellSec, 'Seconds of a shell') : null,
      packaging: typed.packaging.map(({ materialId, perPiece }, i) => ({
        materialId,
        perPiece: number(perPiece, `How many of the ${i + 1}. component`),
      })),
      keepsMonths: orNull(typed.keepsMonths, 'Months that it keeps'),
      gtin: typed.gtin.trim() === '' ? null : typed.gtin.trim(),
      prices: prices.map(({ channel, price }) => ({
        channel,
        price: number(price, `Price of ${channel || 'a channel'}`),
      })),
      retired: typed.retired,
    };
    if (typed.name.trim() === '') problems.push('The product has no name.');
    setWrong(problems);
    if (problems.length > 0) return;
    const [method, path] = product
      ? (['PUT', `/api/products/${product.id}`] as const)
      : (['POST', '/api/products'] as const);
    void run(() => send(method, path, { personId, facts, why: typed.why }, draft.key)).then((kept) => {
      if (!kept) return;
      draft.clear();
      done();
    });
  };
  return (
    <div
      role="group"
      aria-label={product ? `Change ${product.facts.name}` : 'A new product'}
      className="grid gap-4 rounded-md bg-sunk p-4"
    >
      <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_9rem_minmax(0,14rem)]">
        <Box label="Name" value={typed.name} onChange={(name) => set({ name })} />
        <NumberBox
          label="A piece weighs"
          unit="g"
          value={typed.declaredG}
          onChange={(declaredG) => set({ declaredG })}
        />
        <SelectBox
          label="Mould"
          value={typed.mouldId}
          options={[
            ['', 'not said'],
            ...view.moulds.map(({ id, name, cavityG }) => [id, `${name}, ${cavityG} g`] as const),
          ]}
          onChange={(mouldId) => set({ mouldId })}
        />
      </div>
      <Chips
        legend="What it is"
        options={FORM_OPTIONS}
        chosen={[typed.form]}
        choose={([form]) => set({ form: form ?? 'plain' })}
      />
      <Chips legend="Sold" options={PACKS} chosen={[typed.pack]} choose={([pack]) => set({ pack: pack ?? 'retail' })} />
      {view.recipes.length > 0 && (
        <Chips
          legend="Made from (none: any)"
          options={view.recipes.map(({ id, name }) => [id, name] as const)}
          chosen={typed.recipeIds}
          choose={(recipeIds) => set({ recipeIds })}
          several
        />
      )}
      <fieldset>
        <legend className="label">In or on a piece, beside its chocolate</legend>
        <EditableRows
          rows={typed.parts}
          columns="sm:grid-cols-[minmax(0,1fr)_10rem_8rem_auto]"
          leaveOut={(index) => without('parts', index)}
          add={() =>
            set({ parts: [...typed.parts, { materialId: '', role: USUAL_ROLE[typed.form] ?? 'inclusion', grams: '' }] })
          }
          addWords="Add something in or on it"
          fields={(part, index) => (
            <>
              <SelectBox
                label="Ingredient"
                value={part.materialId}
                options={[['', 'choose'], ...ingredients.map(({ id, name }) => [id, name] as const)]}
                onChange={(materialId) => row('parts', index, { materialId })}
              />
              <SelectBox
                label="How"
                value={part.role}
                options={ROLES.map((role) => [role, ROLE_WORDS[role]] as const)}
                onChange={(role) => row('parts', index, { role: role })}
              />
              <NumberBox
                label="A piece"
                unit="g"
                value={part.grams}
                onChange={(grams) => row('parts', index, { grams })}
              />
            </>
          )}
        />
        {typed.form === 'filled' && (
          <NumberBox
            className="mt-1 w-44"
            label="A shell stands for"
            unit="s"
            value={typed.shellSec}
            onChange={(shellSec) => set({ shellSec })}
          />
        )}
      </fieldset>
      <fieldset>
        <legend className="label">Around it</legend>
        <EditableRows
          rows={typed.packaging}
          columns="sm:grid-cols-[minmax(0,1fr)_8rem_auto]"
          leaveOut={(index) => without('packaging', index)}
          add={() => set({ packaging: [...typed.packaging, { materialId: '', perPiece: '1' }] })}
          addWords="Add foil, wrapper, sticker, box"
          fields={(part, index) => (
            <>
              <SelectBox
                label="Component"
                value={part.materialId}
                options={[['', 'choose'], ...packagings.map(({ id, name }) => [id, name] as const)]}
                onChange={(materialId) => row('packaging', index, { materialId })}
              />
              <NumberBox
                label="A piece takes"
                value={part.perPiece}
                onChange={(perPiece) => row('packaging', index, { perPiece })}
              />
            </>
          )}
        />
      </fieldset>
      <fieldset>
        <legend className="label">Price of a piece, by channel ({here.settings.currency})</legend>
        <EditableRows
          rows={typed.prices}
          columns="sm:grid-cols-[minmax(0,1fr)_8rem_auto]"
          leaveOut={(index) => without('prices', index)}
          add={() => set({ prices: [...typed.prices, { channel: '', price: '' }] })}
          addWords="Another channel"
          fields={(price, index) => (
            <>
              <Box label="Channel" value={price.channel} onChange={(channel) => row('prices', index, { channel })} />
              <NumberBox label="Price" value={price.price} onChange={(own) => row('prices', index, { price: own })} />
            </>
          )}
        />
      </fieldset>
      <div className="grid gap-3 sm:grid-cols-[10rem_14rem_minmax(0,1fr)]">
        <NumberBox
          label="Keeps"
          unit="months"
          value={typed.keepsMonths}
          placeholder="as usual"
          onChange={(keepsMonths) => set({ keepsMonths })}
        />
        <Box label="Number in its bar code" value={typed.gtin} onChange={(gtin) => set({ gtin })} />
        <Box label="Why, in a word" value={typed.why} onChange={(why) => set({ why })} />
      </div>
      {product && (
        <Tick checked={typed.retired} onChange={(retired) => set({ retired })}>
          Not sold any more
        </Tick>
      )}
      {wrong.length > 0 && (
        <p role="alert" className="font-semibold text-crimson">
          {wrong.join(' ')}
        </p>
      )}
      <Refusal error={error} />
      <div className="flex flex-wrap gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={save}>
          {product ? `Keep as version ${product.version + 1}` : 'Keep the product'}
        </button>
        <button
          type="button"
          className="button button-quiet"
          onClick={() => {
            draft.clear();
            done();
          }}
        >
          {draft.touched ? 'Throw away what was typed' : 'Close'}
        </button>
      </div>
    </div>
  );
}
