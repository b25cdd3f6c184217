import { ReadingLine } from '../parts/ReadingLine';
import { useShow } from '../parts/workshop';

/** A temperature typed at the bowl, and which probe reads it: none, one that sends, or the simulated one. */
export function ProbeControls({
  of,
  probe,
  busy,
  read,
  follow,
  quick,
}: {
  /** The run that is followed. */
  of: string;
  probe: 'simulated' | 'sent' | 'hand' | null;
  busy: boolean;
  /** Keeps a reading, °C; whether it was kept. */
  read: (tempC: number) => Promise<boolean>;
  follow: (probe: 'simulated' | 'sent' | null, speed?: number) => void;
  /** How the simulated one is made to hurry, in words and times the clock. */
  quick: { words: string; speed: number };
}) {
  const show = useShow();
  const other = (words: string, next: 'simulated' | 'sent' | null, speed?: number) => (
    <button type="button" className="button button-quiet" disabled={busy} onClick={() => follow(next, speed)}>
      {words}
    </button>
  );
  return (
    <>
      <ReadingLine
        id={`${of}.temp`}
        className="w-32"
        label="It is at"
        unit={show.tempUnit}
        button="Log it"
        busy={busy}
        take={(value) => read(show.toCelsius(value))}
      />
      {probe === 'simulated' || probe === 'sent' ? (
        other('Take the probe out', null)
      ) : (
        <>
          {other('A probe sends it', 'sent')}
          {other('Simulated probe', 'simulated')}
          {other(quick.words, 'simulated', quick.speed)}
        </>
      )}
    </>
  );
}
