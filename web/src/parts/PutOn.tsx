import { useState } from 'react';
import { send } from './api';
import { readMass } from './number';

/** Nobody can lift a sack on to a simulated scale, so it is told what stands on it. */
export function PutOn() {
  const [text, setText] = useState('');
  const grams = readMass(text, 'kg') ?? -1;
  const valid = grams >= 0 && grams <= 500_000;
  const place = (): void => {
    if (valid) void send('POST', '/api/devices/scale/place', { massG: grams });
  };
  // Not a form: it stands inside the bench's own.
  return (
    <div className="mt-2 flex items-center gap-2 border-t border-rule pt-2">
      <label className="label flex items-center gap-2">
        Put on the simulated scale
        <input
          className="entry min-h-[44px]! w-20!"
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            event.stopPropagation();
            place();
          }}
          aria-label="Kilograms to put on the simulated scale"
        />
        kg
      </label>
      <button type="button" className="button button-quiet" disabled={!valid} onClick={place}>
        Put on
      </button>
    </div>
  );
}
