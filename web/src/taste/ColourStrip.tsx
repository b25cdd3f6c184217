import { COLOUR_STEPS } from '@wunsch/core/taste/records';

/** From milk to the darkest: browns a hand apart, told by their place and not by their name. */
const BROWNS = ['#a8764a', '#8f5e3b', '#784b30', '#623b28', '#4e2d21', '#3c221b', '#2b1815'] as const;

/** The colour strip: the bar is laid beside the screen, and the step that is nearest is pressed. */
export function ColourStrip({ value, onChange }: { value: number | null; onChange: (step: number | null) => void }) {
  return (
    <div role="group" aria-label="Colour">
      <div className="flex items-baseline justify-between gap-2">
        <span className="font-semibold">Colour</span>
        <span className="text-sm text-soft">
          {value === null ? 'lay the bar beside it, by daylight' : `step ${value + 1} of ${COLOUR_STEPS}`}
        </span>
      </div>
      <div className="mt-1 grid grid-cols-7 overflow-hidden rounded-md">
        {BROWNS.slice(0, COLOUR_STEPS).map((brown, step) => (
          <button
            key={brown}
            type="button"
            aria-label={`Colour step ${step + 1}`}
            aria-pressed={value === step}
            className="relative min-h-14"
            style={{ background: brown }}
            onClick={() => onChange(value === step ? null : step)}
          >
            {value === step && (
              <span
                aria-hidden
                className="absolute inset-x-1/2 bottom-1.5 size-4 -translate-x-1/2 rounded-full border-2 border-white bg-ink"
              />
            )}
          </button>
        ))}
      </div>
    </div>
  );
}
