import { useState } from 'react';
import type { HoldingView } from '@wunsch/core/api/types';
import { Marks } from '../parts/marks';
import { KIND_NAMES } from '../parts/pieces';
import { count, useShow } from '../parts/workshop';

/** What can go in, to be chosen; the first few, the rest on asking. */
export function Picker({
  candidates,
  picked,
  toggle,
  title,
  first,
}: {
  first: number;
  candidates: readonly HoldingView[];
  picked: readonly string[];
  toggle: (id: string) => void;
  title: string;
}) {
  const show = useShow();
  const [all, setAll] = useState(false);
  const shown = all ? candidates : candidates.filter((holding, index) => index < first || picked.includes(holding.id));
  return (
    <fieldset className="mb-5">
      <legend className="label mb-2">{title}</legend>
      <div className="grid gap-2 sm:grid-cols-2">
        {shown.map((holding) => {
          const on = picked.includes(holding.id);
          return (
            <button
              key={holding.id}
              type="button"
              aria-pressed={on}
              onClick={() => toggle(holding.id)}
              className={`flex min-h-[56px] items-center gap-3 rounded-lg px-3 py-1.5 text-left ${on ? 'bg-ink text-on-ink' : 'bg-sheet hover:bg-sunk'}`}
            >
              <span className="code text-lg">{holding.code}</span>
              <span className="min-w-0 flex-1 text-sm leading-tight">
                <span className="block truncate">{holding.name}</span>
                <span className={`block truncate ${on ? 'opacity-80' : 'text-soft'}`}>
                  {KIND_NAMES[holding.kind]}, {show.day(holding.since)}
                </span>
                {(holding.marks.length > 0 || holding.allergens.length > 0) && (
                  <Marks marks={holding.marks} allergens={holding.allergens} plain={on} />
                )}
              </span>
              <span className="figure text-lg whitespace-nowrap">
                {holding.pieces > 0 ? count(holding.pieces) : show.mass(holding.freeMg)}
              </span>
            </button>
          );
        })}
      </div>
      {candidates.length > shown.length && (
        <button type="button" className="button button-quiet mt-1" onClick={() => setAll(true)}>
          {candidates.length - shown.length} more that would fit
        </button>
      )}
    </fieldset>
  );
}
