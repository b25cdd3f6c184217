import { useState } from 'react';
import type { SubjectView } from '@wunsch/core/api/taste';
import { useApi } from '../parts/api';
import { Box } from '../parts/fields';

export const keyOf = ({ subject }: SubjectView): string => `${subject.of}.${subject.id}`;

/** What is here to be tasted, found by part of a code or name. */
export function SubjectPicker({
  label,
  chosen,
  choose,
  most = 9,
}: {
  label: string;
  chosen: readonly string[];
  choose: (subject: SubjectView) => void;
  most?: number;
}) {
  const [text, setText] = useState('');
  const { data } = useApi(`/api/taste/subjects?limit=${most}&find=${encodeURIComponent(text.trim().slice(0, 80))}`);
  const subjects = data?.subjects ?? [];
  return (
    <div>
      <Box label={label} value={text} onChange={setText} placeholder="code, name, another maker" />
      <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label="What is here">
        {subjects.map((row) => (
          <button
            key={keyOf(row)}
            type="button"
            className="chip min-h-[52px]! rounded-lg! text-left"
            aria-pressed={chosen.includes(keyOf(row))}
            onClick={() => choose(row)}
          >
            <span>
              <span className="block">
                {row.code !== null && <span className="code">{row.code}</span>} {row.name}
              </span>
              <span className="block text-sm opacity-80">
                {row.what}
                {row.allergens.length > 0 && `, has ${row.allergens.join(', ')}`}
              </span>
            </span>
          </button>
        ))}
        {data && subjects.length === 0 && (
          <p className="text-soft">
            Nothing of that name is here to be tasted. A bar of another maker is kept under Other makers.
          </p>
        )}
      </div>
    </div>
  );
}
