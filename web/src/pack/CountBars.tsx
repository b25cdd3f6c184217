import { useState } from 'react';
import type { ProductView } from '@wunsch/core/api/products';
import type { HoldingView } from '@wunsch/core/api/types';
import { countByWeight } from '@wunsch/core/pack/count';
import { asGtin14, isGtin } from '@wunsch/core/products/gtin';
import { Box, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { useScale } from '../parts/scale';
import { count, useShow } from '../parts/workshop';

/** Counts what is packed: all of it on the scale, or code after code by a scanner that types. */
export function CountBars({
  holding,
  product,
  products,
  take,
}: {
  holding: HoldingView;
  product: ProductView | null;
  products: readonly ProductView[];
  take: (pieces: number) => void;
}) {
  const show = useShow();
  const [all, setAll] = useState('');
  const [code, setCode] = useState('');
  const [scanned, setScanned] = useState(0);
  const [wrong, setWrong] = useState<string | null>(null);
  const meanG = holding.massMg / holding.pieces / 1000;
  const [open, setOpen] = useState(false);
  const scale = useScale(open);
  const onScale =
    scale !== null && !scale.unplugged && scale.stable && scale.massG > 0 ? Math.round(scale.massG) : null;
  const grams = readNumber(all);
  const found = grams === null ? null : countByWeight(grams, meanG, null);
  const tooMany = (pieces: number): string | null =>
    pieces > holding.pieces ? `${count(holding.pieces)} are here: ${count(pieces)} cannot be.` : null;
  const scan = (): void => {
    const read = code.trim();
    setCode('');
    if (read === '') return;
    const other = products.find(
      ({ facts }) => facts.gtin !== null && isGtin(read) && asGtin14(facts.gtin) === asGtin14(read),
    );
    const mine = product?.facts.gtin ?? null;
    if (mine === null) return setWrong('This product has no number for its bar code: give it one under Products.');
    if (!isGtin(read) || asGtin14(read) !== asGtin14(mine))
      return setWrong(
        other
          ? `${read} is ${other.facts.name}, not ${product?.facts.name ?? ''}: it was not counted.`
          : `${read} is no code of ${product?.facts.name ?? ''}: it was not counted.`,
      );
    const problem = tooMany(scanned + 1);
    setWrong(problem);
    if (problem !== null) return;
    setScanned(scanned + 1);
    take(scanned + 1);
  };
  return (
    <details className="mb-4" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="inline-flex min-h-11 cursor-pointer items-center underline">
        Count by the scale, or by scanning
      </summary>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <NumberBox
          className="w-40"
          label="All on the scale"
          unit="g"
          value={all}
          onChange={setAll}
          onEnter={() => found && tooMany(found.pieces) === null && take(found.pieces)}
        />
        {onScale !== null && (
          <button type="button" className="button button-quiet" onClick={() => setAll(String(onScale))}>
            {onScale} g from the scale{scale?.simulated === true && ', simulated'}
          </button>
        )}
        {found && (
          <>
            <button
              type="button"
              className="button"
              disabled={tooMany(found.pieces) !== null}
              onClick={() => take(found.pieces)}
            >
              Take {count(found.pieces)}
            </button>
            <p className="flex-1 text-sm" role="status">
              {tooMany(found.pieces) ?? found.sentence}
            </p>
          </>
        )}
      </div>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Box className="w-56" label="Scan each" value={code} onChange={setCode} onEnter={scan} />
        <p className="figure text-xl">{count(scanned)} scanned</p>
        {scanned > 0 && (
          <button
            type="button"
            className="button button-quiet"
            onClick={() => {
              setScanned(0);
              setWrong(null);
            }}
          >
            From nothing again
          </button>
        )}
      </div>
      {wrong !== null && (
        <p role="alert" className="mt-1 font-semibold text-crimson">
          {wrong}
        </p>
      )}
      <p className="mt-1 text-sm text-soft">A bar weighs {show.pieceMass(1000 * meanG)} on the mean.</p>
    </details>
  );
}
