import type { Doubt } from '@wunsch/core/entry/doubt';
import { useIntoView } from './into-view';

/** Figures that are far from what they should be near: what was meant is one press away. */
export function DoubtPanel({
  doubts,
  label,
  show,
  answer,
}: {
  doubts: readonly Doubt[];
  label: (field: string) => string;
  /** A figure of that field, with its unit. */
  show: (field: string, value: number) => string;
  answer: (doubt: Doubt, meant: number) => void;
}) {
  const box = useIntoView<HTMLElement>(doubts.map(({ field }) => field).join('+'));
  return (
    <section ref={box} role="alert" aria-label="What was meant?" className="mt-4 rounded-md bg-ripe-wash px-4 py-3">
      {doubts.map((doubt) => (
        <div key={doubt.field} className="mb-2 last:mb-0">
          <p className="figure text-[1.25rem] leading-snug">
            {label(doubt.field)}: {show(doubt.field, doubt.typed)}? {doubt.of}: {show(doubt.field, doubt.near)}.
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            <button type="button" className="button button-main" onClick={() => answer(doubt, doubt.meant)}>
              {show(doubt.field, doubt.meant)} was meant
            </button>
            <button type="button" className="button" onClick={() => answer(doubt, doubt.typed)}>
              {show(doubt.field, doubt.typed)}, as typed
            </button>
          </div>
        </div>
      ))}
    </section>
  );
}
