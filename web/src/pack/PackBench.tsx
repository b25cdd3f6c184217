import { useState } from 'react';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/ledger/commands';
import type { FieldSpec } from '../entry/entry';
import { StepForm } from '../entry/StepForm';
import { readNumber } from '../parts/number';
import { Marks } from '../parts/marks';
import { Code, Empty, Figure } from '../parts/pieces';
import { count, useShow } from '../parts/workshop';
import { componentsOf, perPiece, takeComponents } from './components';

/** Bars into wrappers, blocks and tubs into packs: each with its label, and each component of its packaging. */
export function PackBench({ view }: { view: BenchView }) {
  const goods = view.waiting;
  const [chosen, setChosen] = useState<string | null>(null);
  const holding = goods.find(({ id }) => id === chosen) ?? goods[0];
  const show = useShow();
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
  const each = perPiece(past, view.pantry);
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
      <div className="mb-5 grid grid-cols-3 gap-6">
        <Figure label="Here" value={counted ? count(holding.pieces) : show.mass(holding.massMg)} />
        {counted ? (
          <Figure label="Mean weight" value={show.pieceMass(holding.massMg / holding.pieces)} note="before wrapping" />
        ) : (
          <Figure label="Kept as" value={holding.kind === 'block' ? 'blocks' : 'a tub'} note="weighed into packs" />
        )}
        <Figure
          label="Cost so far"
          value={show.money(counted ? holding.perPieceMilli : holding.perKgMilli)}
          note={counted ? 'a bar, without its packaging' : 'a kilogram'}
        />
      </div>
      <StepForm
        key={holding.id}
        kind="pack"
        station={null}
        draftId={`pack.${holding.id}`}
        specs={[
          { name: 'pieces', label: counted ? 'Bars packed' : 'Packs', type: 'pieces' },
          ...(counted ? [] : [{ name: 'massG', label: 'In all packs together', type: 'mass' } as FieldSpec]),
          { name: 'labelCode', label: 'Code on the label', type: 'text' },
          { name: 'bestBefore', label: 'Best before', type: 'date', ...(usual ? { hint: usual.because } : {}) },
          ...components.map(({ materialId, name, pieces }): FieldSpec => ({
            name: `with.${materialId}`,
            label: `${name}, of ${count(pieces)}`,
            type: 'pieces',
            optional: true,
          })),
          { name: 'note', label: 'Note', type: 'text', optional: true },
        ]}
        propose={(_, fields) => {
          const packs = readNumber(fields['pieces']?.text ?? '') ?? (counted ? holding.pieces : 0);
          return {
            ...(counted ? { pieces: String(holding.pieces) } : {}),
            ...(usual ? { labelCode: usual.label, bestBefore: usual.bestBefore } : {}),
            // As many of each as the last packing took for a bar.
            ...Object.fromEntries(
              components.flatMap(({ materialId }) => {
                const ratio = each.get(materialId);
                return ratio === undefined || packs <= 0
                  ? []
                  : [[`with.${materialId}`, String(Math.round(packs * ratio))] as const];
              }),
            ),
          };
        }}
        path="/api/ledger/steps"
        submit="Pack them"
        head={
          <p className="mt-3 text-sm text-soft">
            {components.length === 0
              ? 'No packaging in the pantry: none is taken.'
              : each.size === 0
                ? 'Say how many of each component are used; what stays empty is not taken.'
                : 'As many of each as the last packing took; what stays empty is not taken.'}
          </p>
        }
        finish={(values) => ({
          ...Object.fromEntries(Object.entries(values).filter(([name]) => !name.startsWith('with.'))),
          holdingId: holding.id,
          packaging: components.flatMap(({ materialId }) =>
            takeComponents(
              view.pantry.filter((row: HoldingView) => row.materialId === materialId),
              Number(values[`with.${materialId}`] ?? 0),
            ),
          ),
        })}
      />
    </>
  );
}
