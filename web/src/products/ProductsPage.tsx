import { useState } from 'react';
import type { ProductView } from '@wunsch/core/api/products';
import type { MarginsView } from '@wunsch/core/api/orders';
import { FORM_WORDS, ROLE_WORDS } from '@wunsch/core/products/records';
import { leftOfPrice } from '@wunsch/core/products/margin';
import { milliFromMajor } from '@wunsch/core/units/money';
import { useApi } from '../parts/api';
import { hasDraft } from '../parts/draft';
import { Caution, Empty, Loading, Section } from '../parts/pieces';
import { count, useHere, useShow } from '../parts/workshop';
import { StoreNav } from '../store/StoreNav';
import { ProductForm, productDraft } from './ProductForm';

/** What is sold: each product with what is in it, around it, and what it earns. */
export function ProductsPage() {
  const { data, error } = useApi('/api/products');
  const margins = useApi('/api/orders/margins').data;
  const [editing, setEditing] = useState<string | null>(null);
  if (!data) return <Loading error={error} />;
  const open = editing ?? (hasDraft(productDraft(null)) ? 'new' : null);
  return (
    <div>
      <StoreNav />
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-4xl">Products</h1>
        <button type="button" className="button button-main" onClick={() => setEditing(open === 'new' ? '' : 'new')}>
          A new product
        </button>
      </div>
      {open === 'new' && (
        <div className="mt-5">
          <ProductForm view={data} product={null} done={() => setEditing('')} />
        </div>
      )}
      {data.products.length === 0 && open !== 'new' ? (
        <div className="mt-6">
          <Empty title="Nothing is sold by a name yet.">
            A product says what a piece weighs, what is in and around it, how long it keeps and what it costs by each
            channel. Pack, labels, orders and margins go by it.
          </Empty>
        </div>
      ) : (
        <ul className="rows mt-5">
          {data.products.map((product) => (
            <Product
              key={product.id}
              product={product}
              margins={margins}
              edit={() => setEditing(open === product.id ? '' : product.id)}
              form={
                open === product.id ? <ProductForm view={data} product={product} done={() => setEditing('')} /> : null
              }
            />
          ))}
        </ul>
      )}
      {data.retired.length > 0 && (
        <Section title="Not sold any more">
          <ul className="rows">
            {data.retired.map((product) => (
              <li key={product.id} className="flex flex-wrap items-baseline gap-x-4 py-2">
                <span className="flex-1">{product.facts.name}</span>
                <button type="button" className="button button-quiet" onClick={() => setEditing(product.id)}>
                  Look at it
                </button>
                {open === product.id && (
                  <div className="w-full">
                    <ProductForm view={data} product={product} done={() => setEditing('')} />
                  </div>
                )}
              </li>
            ))}
          </ul>
        </Section>
      )}
      <div className="mt-8">
        <Caution>
          Weights, labels, dates and claims: the local authority decides. A watery filling keeps only as long as
          somebody has proved (water activity).
        </Caution>
      </div>
    </div>
  );
}

function Product({
  product,
  margins,
  edit,
  form,
}: {
  product: ProductView;
  margins: MarginsView | undefined;
  edit: () => void;
  form: React.ReactNode;
}) {
  const show = useShow();
  const { view } = useHere();
  const { facts, names, piece, costMilli } = product;
  const grams = (g: number): string => show.pieceMass(Math.round(1000 * g));
  const earned = (margins?.margins ?? []).filter(({ productId }) => productId === product.id);
  return (
    <li className="py-4">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h2 className="text-2xl">{facts.name}</h2>
        <span className="text-soft">
          {grams(facts.declaredG)}, {FORM_WORDS[facts.form].toLowerCase()}
          {facts.pack === 'bulk' && ', in bulk'}
        </span>
        <span className="flex-1" />
        <span className="figure text-xl">{count(product.packed)} packed</span>
        {product.unpacked > 0 && <span className="text-soft">{count(product.unpacked)} to pack</span>}
        <button type="button" className="button button-quiet" aria-expanded={form !== null} onClick={edit}>
          {form === null ? 'Change it' : 'Close'}
        </button>
      </div>
      <div className="mt-1 grid gap-x-10 gap-y-1 text-[0.95rem] md:grid-cols-2">
        <p>
          {grams(piece.chocolateG)} of chocolate
          {facts.recipeIds.length > 0 && `: ${facts.recipeIds.map((id) => names[id] ?? '').join(' or ')}`}
          {facts.parts.map(
            ({ materialId, role, grams: each }) =>
              `; ${grams(each)} of ${(names[materialId] ?? '').toLowerCase()} ${ROLE_WORDS[role]}`,
          )}
          {piece.partsG > 0 && ` (${piece.partsPct.toFixed(0)}\u00a0% is no chocolate)`}.
          {facts.packaging.length > 0 &&
            ` Around it: ${facts.packaging
              .map(
                ({ materialId, perPiece }) =>
                  `${perPiece === 1 ? '' : `${perPiece} × `}${(names[materialId] ?? '').toLowerCase()}`,
              )
              .join(', ')}.`}{' '}
          <span className="text-soft">
            Keeps {facts.keepsMonths === null ? 'as usual for what is in it' : `${facts.keepsMonths} months`}
            {facts.gtin !== null && `; number ${facts.gtin}`}. Version {product.version}, {show.day(product.at)},{' '}
            {product.person}
            {product.why !== '' && `: ${product.why}`}.
          </span>
        </p>
        <div>
          {facts.prices.length === 0 ? (
            <p className="text-soft">No price yet.</p>
          ) : (
            <table className="w-full">
              <thead className="label text-left">
                <tr>
                  <th className="font-normal">Channel</th>
                  <th className="text-right font-normal">Price</th>
                  <th className="text-right font-normal">Left of it</th>
                  <th className="text-right font-normal">Sold, a year</th>
                </tr>
              </thead>
              <tbody>
                {facts.prices.map(({ channel, price }) => {
                  const row = earned.find((own) => own.channel === channel);
                  const left = costMilli === null ? null : leftOfPrice(milliFromMajor(price), costMilli);
                  return (
                    <tr key={channel}>
                      <td>{channel}</td>
                      <td className="figure text-right">{show.money(milliFromMajor(price))}</td>
                      <td className={`figure text-right ${left !== null && left.milli < 0 ? 'text-crimson' : ''}`}>
                        {left === null
                          ? '–'
                          : `${show.money(left.milli)}${left.share === null ? '' : `, ${show.percent(left.share, 0)}`}`}
                      </td>
                      <td className="figure text-right">{row ? count(row.pieces) : '–'}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          )}
          {costMilli !== null && (
            <p className="mt-1 text-sm text-soft">
              A piece last cost {show.money(costMilli)}: beans, hours, energy and wrapping, in {view.settings.currency}.
            </p>
          )}
        </div>
      </div>
      {form !== null && <div className="mt-4">{form}</div>}
    </li>
  );
}
