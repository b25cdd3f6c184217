import type { ProductsView, ProductView } from '@wunsch/core/api/products';
import { field } from '@wunsch/core/fields/registry';
import { text } from '@wunsch/core/fields/fields';
import { productFacts, type Form, type Role } from '@wunsch/core/products/records';
import { z } from 'zod/mini';
import { send } from '../parts/api';
import { somebody } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { Field, Rows, useTyped } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';

/** A product as its form holds it, with why it is changed. */
const productSheet = z.safeExtend(productFacts, { why: field(text(300), { label: 'Why, in a word' }) });

/** Under which a half-typed product is kept. */
export const productDraft = (id: string | null): string => `record.product.${id ?? 'new'}`;

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
  const show = useShow();
  const record = useRecordForm(`product.${product?.id ?? 'new'}`, productSheet, () => ({
    form: 'plain' as const,
    pack: 'retail' as const,
    prices: [{}],
    ...product?.facts,
  }));
  const listOf = (kind: 'ingredient' | 'packaging') => [
    ['', 'choose'] as const,
    ...here.materials.filter((row) => row.kind === kind).map(({ id, name }) => [id, name] as const),
  ];
  return (
    <div role="group" aria-label={product ? `Change ${product.facts.name}` : 'A new product'}>
      <RecordSheet
        record={record}
        save={async ({ why, ...facts }, key) => {
          const body = {
            personId: somebody(personId),
            facts: { ...facts, shellSec: facts.form === 'filled' ? facts.shellSec : null },
            why,
          };
          return product
            ? send('PUT', `/api/products/${product.id}`, body, key)
            : send('POST', '/api/products', body, key);
        }}
        submit={product ? `Keep as version ${product.version + 1}` : 'Keep the product'}
        leave={record.touched ? 'Throw away what was typed' : 'Close'}
        done={done}
        className="grid gap-4 rounded-md bg-sunk p-4"
      >
        <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_9rem_minmax(0,14rem)]">
          <Field at="name" />
          <Field at="declaredG" />
          <Field
            at="mouldId"
            listed
            choices={[
              ['', 'not said'],
              ...view.moulds.map(({ id, name, cavityG }) => [id, `${name}, ${show.piece(cavityG)}`] as const),
            ]}
          />
        </div>
        <Field at="form" />
        <Field at="pack" />
        {view.recipes.length > 0 && (
          <Field at="recipeIds" choices={view.recipes.map(({ id, name }) => [id, name] as const)} />
        )}
        <fieldset>
          <legend className="label">In or on a piece, beside its chocolate</legend>
          <Parts ingredients={listOf('ingredient')} />
        </fieldset>
        <fieldset>
          <legend className="label">Around it</legend>
          <Rows
            at="packaging"
            columns="sm:grid-cols-[minmax(0,1fr)_8rem_auto]"
            first={{ perPiece: 1 }}
            add="Add foil, wrapper, sticker, box"
          >
            {(path) => (
              <>
                <Field at={`${path}.materialId`} listed choices={listOf('packaging')} />
                <Field at={`${path}.perPiece`} />
              </>
            )}
          </Rows>
        </fieldset>
        <fieldset>
          <legend className="label">Price of a piece, by channel ({here.settings.currency})</legend>
          <Rows at="prices" columns="sm:grid-cols-[minmax(0,1fr)_8rem_auto]" add="Another channel">
            {(path) => (
              <>
                <Field at={`${path}.channel`} />
                <Field at={`${path}.price`} />
              </>
            )}
          </Rows>
        </fieldset>
        <div className="grid gap-3 sm:grid-cols-[10rem_14rem_minmax(0,1fr)]">
          <Field at="keepsMonths" />
          <Field at="gtin" />
          <Field at="why" />
        </div>
        {product && <Field at="retired" />}
      </RecordSheet>
    </div>
  );
}

function Parts({ ingredients }: { ingredients: readonly (readonly [string, string])[] }) {
  const form = useTyped<Form>('form');
  return (
    <>
      <Rows
        at="parts"
        columns="sm:grid-cols-[minmax(0,1fr)_10rem_8rem_auto]"
        first={{ role: USUAL_ROLE[form] ?? 'inclusion' }}
        add="Add something in or on it"
      >
        {(path) => (
          <>
            <Field at={`${path}.materialId`} listed choices={ingredients} />
            <Field at={`${path}.role`} listed />
            <Field at={`${path}.grams`} />
          </>
        )}
      </Rows>
      {form === 'filled' && <Field className="mt-1 w-44" at="shellSec" />}
    </>
  );
}
