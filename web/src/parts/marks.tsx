import { Link } from 'react-router';
import type { Mark } from '@wunsch/core/workshop/mark';

/** What one has to know who looks at these goods: in words, beside their code, wherever it stands. */
export function Marks({
  marks,
  allergens = [],
  plain = false,
}: {
  marks: readonly Mark[];
  allergens?: readonly string[];
  /** On a dark ground: without tints. */
  plain?: boolean;
}) {
  const kinds = [...new Map(marks.map((mark) => [mark.label, mark])).values()];
  if (kinds.length + allergens.length === 0) return null;
  return (
    <span className="flex flex-wrap gap-1 py-0.5">
      {kinds.map(({ label, why }) => (
        <span
          key={label}
          title={why}
          className={`rounded-sm px-1.5 text-[0.8125rem] leading-5 font-semibold ${plain ? 'ring-1 ring-current' : 'bg-crimson-wash text-crimson'}`}
        >
          {label}
        </span>
      ))}
      {allergens.length > 0 && (
        <span
          className={`rounded-sm px-1.5 text-[0.8125rem] leading-5 ${plain ? 'ring-1 ring-current' : 'bg-ripe-wash'}`}
        >
          has {allergens.join(', ')}
        </span>
      )}
    </span>
  );
}

/** The same in full: each with what it rests on, and the step that says so. */
export function MarkList({ marks }: { marks: readonly Mark[] }) {
  if (marks.length === 0) return null;
  return (
    <ul className="mt-3 grid gap-1 border-l-4 border-crimson pl-3 text-[0.95rem]" aria-label="To know about it">
      {marks.map(({ id, label, why, stepId }) => (
        <li key={`${id} ${why}`}>
          <strong className="text-crimson">{label}</strong>: {why}{' '}
          {stepId !== null && (
            <Link className="link" to={`/step/${stepId}`}>
              The step
            </Link>
          )}
        </li>
      ))}
    </ul>
  );
}
