import type { TasterStanding } from '@wunsch/core/taste/palates';

/** How one palate does, kindly: for its owner alone. */
export function Palate({ palate }: { palate: TasterStanding }) {
  const { lean, spread, repeat, drift, n } = palate;
  const words = [
    Math.abs(lean) < 0.3
      ? 'You score about as high as the panel does.'
      : `You score ${Math.abs(lean).toFixed(1)} points ${lean > 0 ? 'higher' : 'lower'} than the panel as a rule: nobody loses by it, bars are compared within your own round.`,
    spread > 1.25
      ? 'You use more of the scale than others: small differences show well.'
      : spread < 0.8
        ? 'You stay near the middle of the scale: dare a little more, it helps the panel.'
        : 'You use the scale as the panel does.',
    repeat === null
      ? null
      : repeat < 0.6
        ? `A bar that you taste again gets nearly the same (give or take ${repeat.toFixed(1)}): steady.`
        : `A bar that you taste again moves by ${repeat.toFixed(1)} or so: more water and more time between two.`,
    drift !== null && Math.abs(drift) > 0.2
      ? `Your level ${drift > 0 ? 'rises' : 'falls'} by ${Math.abs(drift).toFixed(1)} a session.`
      : null,
  ].filter((row) => row !== null);
  return (
    <section aria-label="How you taste" className="mt-5 rounded-md bg-leaf-wash px-4 py-3">
      <p className="label">How you taste, from {n} scores; shown to you alone</p>
      {words.map((row) => (
        <p key={row} className="mt-1">
          {row}
        </p>
      ))}
    </section>
  );
}
