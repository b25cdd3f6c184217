import { useState } from 'react';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/commands';
import type { FieldSpec } from '../entry/entry';
import { StepForm } from '../entry/StepForm';
import { readNumber } from '../parts/number';
import { Marks } from '../parts/marks';
import { Code, Empty, Figure } from '../parts/pieces';
import { count, useHere, useShow } from '../parts/workshop';
import { useApi } from '../parts/api';
import { SelectBox } from '../parts/choice';
import { CountBars } from './CountBars';
import { componentsOf, fittingProducts, keepsTo, perPiece, takeComponents, withSpoilt } from './components';
import { fieldsFor } from '../entry/fields-for';

/** Bars into wrappers, blocks and tubs into packs: each with its label, and each component of its packaging. */
export function PackBench({ view }: { view: BenchView }) {
  // The oldest is packed first.
  const goods = [...view.waiting].sort((a, b) => a.since - b.since);
  const [chosen, setChosen] = useState<string | null>(null);
  const holding = goods.find(({ id }) => id === chosen) ?? goods[0];
  const show = useShow();
  const { settings } = useHere().view;
  const { data: sold } = useApi('/api/products');
  const products = sold?.products ?? [];
  const [named, setNamed] = useState<Record<string, string>>({});
  if (!holding)
    return (
      <Empty title="Nothing waits to be packed.">
        Turn out a mould and count the good bars: they come here. So do blocks whose route ends with Pack.
      </Empty>
    );
  const counted = holding.pieces > 0;
  const usual = view.packing[holding.id];
  const components = componentsOf(view.pantry);
  const past = view.recent.find(({ kind }) => kind === 'pack')?.command as CommandOf<'pack'> | undefined;
  const fits = fittingProducts(products, holding);
  const productId = named[holding.id] ?? fits[0]?.id ?? '';
  const product = products.find(({ id }) => id === productId);
  const each = product
    ? new Map(product.facts.packaging.map((row) => [row.materialId, row.perPiece]))
    : perPiece(past, view.pantry);
  const oldest = goods.reduce((first, row) => (row.since < first.since ? row : first), goods[0] ?? holding);
  const isOldest = oldest.id === holding.id || oldest.name !== holding.name;
  const bestBefore =
    usual && product ? keepsTo(product, holding.since, usual.bestBefore, settings.timeZone) : usual?.bestBefore;
  return (
    <>
      <div className="mb-5 flex flex-wrap gap-2" role="group" aria-label="What is packed">
        {goods.map((row) => (
          <button
            key={row.id}
            type="button"
            className="chip min-h-[60px]! rounded-lg! text-left"
            aria-pressed={row === holding}
            onClick={() => setChosen(row.id)}
          >
            <span>
              <span className="block">
                <span className="code">{row.batchCode ?? row.code}</span> · {row.name}
              </span>
              <span className="block text-sm opacity-80">
                {row.pieces > 0 ? `${count(row.pieces)} ${row.pieces === 1 ? 'bar' : 'bars'}, ` : ''}
                {show.mass(row.massMg)}
              </span>
              <Marks marks={row.marks} allergens={row.allergens} plain={row === holding} />
            </span>
          </button>
        ))}
      </div>
      <p className="mb-4">
        <Code code={holding.code} kind={holding.kind} /> {holding.name}:{' '}
        {holding.allergens.length > 0 ? (
          <strong>the label names {holding.allergens.join(', ')}.</strong>
        ) : (
          'no allergen in what went in; look at what its machines saw before.'
        )}
      </p>
      <div className="mb-4 grid grid-cols-3 gap-6">
        <Figure small label="Here" value={counted ? count(holding.pieces) : show.mass(holding.massMg)} />
        {counted ? (
          <Figure
            small
            label="Mean weight"
            value={show.pieceMass(holding.massMg / holding.pieces)}
            note="before wrapping"
          />
        ) : (
          <Figure
            small
            label="Kept as"
            value={holding.kind === 'block' ? 'blocks' : 'a tub'}
            note="weighed into packs"
          />
        )}
        <Figure
          small
          label="Cost so far"
          value={counted ? show.money(holding.perPieceMilli) : show.price(holding.perKgMilli)}
          note={counted ? 'a bar, without its packaging' : `a ${show.heavyWord}`}
        />
      </div>
      <div className="mb-5 grid gap-4">
        {products.length > 0 && (
          <SelectBox
            className="max-w-md"
            label="Packed as"
            value={productId}
            options={[
              ['', 'no product'],
              ...products.map(({ id, facts, version }) => [id, `${facts.name}, version ${version}`] as const),
            ]}
            onChange={(next) => setNamed((now) => ({ ...now, [holding.id]: next }))}
          />
        )}
        {product && counted && holding.massMg / holding.pieces < 1000 * product.facts.declaredG && (
          <p className="border-l-4 border-crimson pl-3">
            <strong>
              {show.pieceMass(holding.massMg / holding.pieces)} on the mean: under the{' '}
              {show.pieceMass(1000 * product.facts.declaredG)} that are declared.
            </strong>{' '}
            Pack them as something lighter, or send them back to be melted.
          </p>
        )}
        {!isOldest && (
          <p className="border-l-4 border-ripe pl-3 text-sm">
            <Code code={oldest.code} kind={oldest.kind} /> of the same is older: pack it first.
          </p>
        )}
      </div>
      <StepForm
        key={`${holding.id} ${productId}`}
        kind="pack"
        station={null}
        draftId={`pack.${holding.id}`}
        before={(entry) =>
          counted ? (
            <CountBars
              holding={holding}
              product={product ?? null}
              products={products}
              take={(pieces) => entry.write('pieces', String(pieces))}
            />
          ) : null
        }
        specs={[
          ...fieldsFor(
            'pack',
            ['pieces', counted ? {} : { label: 'Packs' }],
            ...(counted ? [] : [['massG', { label: 'In all packs together', optional: false }] as const]),
            'labelCode',
            [
              'bestBefore',
              product?.facts.keepsMonths != null
                ? { hint: `${product.facts.keepsMonths} months, as the product says` }
                : usual
                  ? { hint: usual.because }
                  : {},
            ],
          ),
          ...components.map(({ materialId, name, pieces }): FieldSpec => ({
            name: `with.${materialId}`,
            label: `${name}, of ${count(pieces)}`,
            type: 'pieces',
            optional: true,
          })),
          ...components.map(({ materialId, name }): FieldSpec => ({
            name: `spoilt.${materialId}`,
            label: `${name} spoilt`,
            type: 'pieces',
            optional: true,
          })),
          ...fieldsFor('pack', 'note'),
        ]}
        propose={(_, fields) => {
          const packs = readNumber(fields['pieces']?.text ?? '') ?? (counted ? holding.pieces : 0);
          return {
            ...(counted ? { pieces: String(holding.pieces) } : {}),
            ...(usual ? { labelCode: usual.label, bestBefore: bestBefore ?? usual.bestBefore } : {}),
            // As many of each as its product says, or as the last packing took for a bar.
            ...Object.fromEntries(
              components.flatMap(({ materialId }) => {
                const ratio = each.get(materialId);
                return ratio === undefined || packs <= 0
                  ? []
                  : [[`with.${materialId}`, String(Math.ceil(packs * ratio - 1e-4))] as const];
              }),
            ),
          };
        }}
        submit="Pack them"
        head={
          <p className="mt-3 text-sm text-soft">
            {components.length === 0
              ? 'No packaging in the pantry: none is taken.'
              : each.size === 0
                ? 'Say how many of each component are used; what stays empty is not taken.'
                : product
                  ? 'As many of each as the product says; what stays empty is not taken.'
                  : 'As many of each as the last packing took; what stays empty is not taken.'}
          </p>
        }
        finish={(values) => ({
          ...Object.fromEntries(Object.entries(values).filter(([name]) => !/^(with|spoilt)\./.test(name))),
          holdingId: holding.id,
          ...(product ? { product: { id: product.id, version: product.version } } : {}),
          packaging: components.flatMap(({ materialId }) =>
            withSpoilt(
              takeComponents(
                view.pantry.filter((row: HoldingView) => row.materialId === materialId),
                Number(values[`with.${materialId}`] ?? 0) + Number(values[`spoilt.${materialId}`] ?? 0),
              ),
              Number(values[`spoilt.${materialId}`] ?? 0),
            ),
          ),
        })}
      />
    </>
  );
}
