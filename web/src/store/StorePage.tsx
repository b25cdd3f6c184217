import { useState } from 'react';
import { coinDigits } from '@wunsch/core/units/money';
import { fieldG } from '../entry/entry';
import { StepForm } from '../entry/StepForm';
import { FinishedGoods } from './FinishedGoods';
import { StoreNav } from './StoreNav';
import { askTakings, PRICES, proposeTakings, SALE_FIELDS, saleOf } from './takings';
import { useApi } from '../parts/api';
import { HoldingList } from '../parts/HoldingList';
import { Empty, Figure, Loading, Section } from '../parts/pieces';
import { MassUnitHere, count, useHere, useShow, useUnitOf } from '../parts/workshop';
import { fieldsFor } from '../entry/fields-for';

type Act = 'none' | 'sell' | 'buy';

/** Bars to sell, husk, and the pantry: what there is, what it cost, and the doors in and out. */
export function StorePage() {
  const answer = useApi('/api/trace/stock');
  const floor = useApi('/api/ledger/floor');
  const prices = useApi(PRICES);
  const unit = useUnitOf((answer.data?.holdings ?? []).map(({ massMg }) => massMg));
  const show = useShow(unit);
  const { view } = useHere();
  const [act, setAct] = useState<Act>('none');
  const [materialId, setMaterialId] = useState(view.materials[0]?.id ?? '');
  if (!answer.data) return <Loading error={answer.error} />;
  const { holdings } = answer.data;
  const packed = holdings
    .filter(({ kind }) => kind === 'packed')
    .sort((a, b) => (a.bestBefore ?? '9999').localeCompare(b.bestBefore ?? '9999'));
  const others = holdings.filter(({ kind }) => kind === 'seconds' || kind === 'husk' || kind === 'bars').reverse();
  // What is sold by weight: couverture and its blocks, nibs.
  const byWeight = holdings
    .filter(
      ({ kind, place }) =>
        kind === 'block' || kind === 'nibs' || kind === 'remelt' || (kind === 'mass' && place !== 'grind'),
    )
    .reverse();
  const pantry = holdings.filter(({ place }) => place === 'pantry');
  // The list is cut off at what a page shows; the sums are over all of it.
  const bars = floor.data?.store.pieces ?? 0;
  const worth = floor.data?.store.valueMilli ?? 0;
  const material = view.materials.find(({ id }) => id === materialId);
  return (
    <MassUnitHere value={unit}>
      <StoreNav />
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-4xl">Store and pantry</h1>
        <div className="flex gap-2">
          <button
            type="button"
            className="chip"
            aria-pressed={act === 'sell'}
            onClick={() => setAct(act === 'sell' ? 'none' : 'sell')}
          >
            Sell or give
          </button>
          <button
            type="button"
            className="chip"
            aria-pressed={act === 'buy'}
            onClick={() => setAct(act === 'buy' ? 'none' : 'buy')}
          >
            Buy for the pantry
          </button>
        </div>
      </div>
      {act === 'sell' && (
        <div className="mt-6">
          {packed.length + others.length + byWeight.length === 0 ? (
            <Empty title="Nothing to sell yet.">Packed bars, seconds, blocks, couverture and husk show here.</Empty>
          ) : (
            <StepForm
              kind="sell"
              station={null}
              draftId="sell"
              candidates={[...packed, ...others, ...byWeight]}
              pickTitle="What goes"
              submit="Book the sale"
              specs={SALE_FIELDS}
              ask={askTakings(view.settings.currency)}
              propose={(chosen, fields) =>
                proposeTakings(
                  prices.data?.prices ?? [],
                  chosen,
                  fields,
                  (id) => fieldG(fields[`take.${id}`]),
                  coinDigits(view.settings.currency),
                )
              }
              initial={{ use: { text: 'sold' } }}
              finish={saleOf}
            />
          )}
        </div>
      )}
      {act === 'buy' && (
        <div className="mt-6">
          {view.materials.length === 0 ? (
            <Empty title="Name the ingredients first.">Under Workshop: sugar, cocoa butter, wrappers.</Empty>
          ) : (
            <>
              <div className="mb-5 flex flex-wrap gap-2" role="group" aria-label="What was bought">
                {view.materials.map(({ id, name }) => (
                  <button
                    key={id}
                    type="button"
                    className="chip"
                    aria-pressed={id === materialId}
                    onClick={() => setMaterialId(id)}
                  >
                    {name}
                  </button>
                ))}
              </div>
              <StepForm
                key={materialId}
                kind="buy"
                station={null}
                draftId={`buy.${materialId}`}
                specs={fieldsFor(
                  'buy',
                  'supplier',
                  'supplierBatch',
                  [material?.kind === 'packaging' ? 'pieces' : 'massG', { optional: false }],
                  ['price', { label: `Price, all of it (${view.settings.currency})` }],
                  'note',
                )}
                initial={{ massG: { text: '', unit: view.settings.massSystem === 'metric' ? 'kg' : 'lb' } }}
                submit="Put it in the pantry"
                finish={(values) => ({ ...values, materialId })}
              />
            </>
          )}
        </div>
      )}
      <div className="mt-6 grid grid-cols-2 gap-6 sm:max-w-md">
        <Figure label="Packed bars" value={count(bars)} />
        <Figure label="They cost" value={show.money(worth)} />
      </div>
      <div className="mt-8 grid gap-10 lg:grid-cols-2">
        <div>
          <FinishedGoods />
        </div>
        <div>
          <Section title="Pantry">
            {pantry.length === 0 ? (
              <p className="text-soft">Empty. Buy sugar and wrappers before the first batch.</p>
            ) : (
              <HoldingList label="Pantry" holdings={pantry} prefix="pantry-" />
            )}
          </Section>
          <Section title="Seconds, husk, unpacked bars">
            {others.length === 0 ? (
              <p className="text-soft">None.</p>
            ) : (
              <HoldingList label="Seconds, husk, unpacked bars" holdings={others} prefix="others-" />
            )}
          </Section>
        </div>
      </div>
    </MassUnitHere>
  );
}
