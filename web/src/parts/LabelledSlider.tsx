import { Slider } from 'radix-ui';

/** A slider with its name and its value in words over it. */
export function LabelledSlider({
  label,
  text,
  from,
  to,
  step,
  value,
  onChange,
}: {
  label: string;
  text: string;
  from: number;
  to: number;
  step: number;
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <div>
      <span className="label">
        {label}: <span className="figure">{text}</span>
      </span>
      <Slider.Root
        className="relative flex h-11 touch-none items-center select-none"
        min={from}
        max={to}
        step={step}
        value={[value]}
        onValueChange={([next = value]) => onChange(next)}
      >
        <Slider.Track className="relative h-1.5 grow rounded-full bg-rule">
          <Slider.Range className="absolute h-full rounded-full bg-leaf" />
        </Slider.Track>
        <Slider.Thumb
          aria-label={label}
          aria-valuetext={text}
          className="block size-8 rounded-full border-2 border-ink bg-sheet shadow-sm focus-visible:outline-3 focus-visible:outline-offset-2 focus-visible:outline-ink"
        />
      </Slider.Root>
    </div>
  );
}
