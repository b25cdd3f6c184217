const STEPS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const;

/** A short scale from nothing to all there can be: one press. The figure it had before is marked. */
export function ScaleRow({
  label,
  ends: [low, high],
  value,
  before,
  onChange,
}: {
  label: string;
  ends: readonly [string, string];
  value: number | null;
  before?: number | null | undefined;
  onChange: (value: number | null) => void;
}) {
  return (
    <div role="group" aria-label={label}>
      <div className="flex items-baseline justify-between gap-2">
        <span className="font-semibold">{label}</span>
        <span className="text-sm text-soft">
          {low} – {high}
          {before != null && before !== value && <strong className="text-ink">, was {before}</strong>}
        </span>
      </div>
      <div className="mt-1 grid grid-cols-11 gap-px overflow-hidden rounded-md border border-rule bg-rule">
        {STEPS.map((step) => {
          const on = value !== null && step <= value;
          return (
            <button
              key={step}
              type="button"
              aria-label={`${label} ${step}`}
              aria-pressed={value === step}
              className={`figure min-h-11 text-base ${
                value === step ? 'bg-ink text-on-ink' : on ? 'bg-leaf-wash' : 'bg-sheet'
              } ${before === step && value !== step ? 'underline decoration-2 underline-offset-4' : ''}`}
              onClick={() => onChange(value === step ? null : step)}
            >
              {step}
            </button>
          );
        })}
      </div>
    </div>
  );
}
