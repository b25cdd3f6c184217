import { useState } from 'react';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { useShow } from '../parts/workshop';

/** A temperature typed at the bowl, and which probe reads it: none, one that sends, or the simulated one. */
export function ProbeControls({
  probe,
  busy,
  read,
  follow,
  quick,
}: {
  probe: 'simulated' | 'sent' | 'hand' | null;
  busy: boolean;
  /** Keeps a reading, °C; whether it was kept. */
  read: (tempC: number) => Promise<boolean>;
  follow: (probe: 'simulated' | 'sent' | null, speed?: number) => void;
  /** How the simulated one is made to hurry, in words and times the clock. */
  quick: { words: string; speed: number };
}) {
  const show = useShow();
  const [typed, setTyped] = useState('');
  const [wrong, setWrong] = useState<string | undefined>(undefined);
  const log = (): void => {
    const value = readNumber(typed);
    if (value === null) return setWrong('is not a number');
    void read(show.toCelsius(value)).then((kept) => kept && setTyped(''));
  };
  const other = (words: string, next: 'simulated' | 'sent' | null, speed?: number) => (
    <button type="button" className="button button-quiet" disabled={busy} onClick={() => follow(next, speed)}>
      {words}
    </button>
  );
  return (
    <>
      <NumberBox
        className="w-32"
        label="It is at"
        unit={show.tempUnit}
        value={typed}
        problem={wrong}
        onEnter={log}
        onChange={(text) => {
          setWrong(undefined);
          setTyped(text);
        }}
      />
      <button type="button" className="button" disabled={busy} onClick={log}>
        Log it
      </button>
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
