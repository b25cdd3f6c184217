import { Slider } from 'radix-ui';

/** µm at the deep end of the drawn gauge. */
const DEEP = 100;
const TICKS = [100, 80, 60, 40, 20, 0];
const SURE =
  'block size-8 rounded-full border-2 focus-visible:outline-3 focus-visible:outline-offset-2 focus-visible:outline-ink';

/**
 * A fineness gauge to mark with a finger, from the deep end down: in each channel where the band of grains is dense, and
 * where single streaks begin.
 */
export function DrawnGauge({
  channels,
  streaks,
  mark,
}: {
  /** µm; NaN where nothing is marked yet. */
  channels: readonly number[];
  streaks: readonly number[];
  mark: (channels: number[], streaks: number[]) => void;
}) {
  return (
    <div
      role="group"
      aria-label="Gauge, drawn"
      className="max-w-xl rounded-md border border-rule bg-sheet px-4 pt-2 pb-3"
    >
      <div className="flex justify-between px-4 text-sm text-soft" aria-hidden>
        {TICKS.map((tick) => (
          <span key={tick} className="figure w-8 text-center">
            {tick}
          </span>
        ))}
      </div>
      {channels.map((band, channel) => {
        const streak = streaks[channel] ?? band;
        // The gauge is drawn deep end first: distances run the other way than microns.
        const values = [DEEP - streak, DEEP - band];
        return (
          <div key={channel} className="px-4 py-1">
            <Slider.Root
              className="relative flex h-12 touch-none items-center select-none"
              min={0}
              max={DEEP - 1}
              step={1}
              value={values}
              onValueChange={([far = 0, near = 0]) => {
                const put = (list: readonly number[], value: number): number[] =>
                  list.map((old, i) => (i === channel ? value : old));
                mark(put(channels, DEEP - near), put(streaks, DEEP - far));
              }}
            >
              <Slider.Track className="relative h-9 grow overflow-hidden rounded-sm bg-sunk">
                {/* Deep at the left, nothing at the right. */}
                <span
                  aria-hidden
                  className="absolute inset-0 bg-[var(--nib)] opacity-35"
                  style={{ clipPath: 'polygon(0 0, 100% 45%, 100% 55%, 0 100%)' }}
                />
                <span
                  aria-hidden
                  className="absolute inset-y-0 right-0 bg-[var(--nib)]"
                  style={{
                    left: `${100 - band}%`,
                    maskImage: 'radial-gradient(circle, #000 1.2px, transparent 1.6px)',
                    maskSize: '6px 6px',
                  }}
                />
                <Slider.Range className="absolute inset-y-3 bg-ripe opacity-60" />
              </Slider.Track>
              <Slider.Thumb
                aria-label={`Channel ${channel + 1}, single streaks begin`}
                aria-valuetext={`${streak} µm`}
                className={`${SURE} border-ripe-ink bg-ripe-wash`}
              />
              <Slider.Thumb
                aria-label={`Channel ${channel + 1}, dense band`}
                aria-valuetext={`${band} µm`}
                className={`${SURE} border-ink bg-sheet`}
              />
            </Slider.Root>
          </div>
        );
      })}
      <p className="px-4 text-sm text-soft">
        <span aria-hidden className="mr-1 inline-block size-3 rounded-full border-2 border-ink bg-sheet align-[-1px]" />
        dense band
        <span
          aria-hidden
          className="mr-1 ml-4 inline-block size-3 rounded-full border-2 border-ripe-ink bg-ripe-wash align-[-1px]"
        />
        single streaks begin
      </p>
    </div>
  );
}
