import { useState } from 'react';
import { SIGNS } from '@wunsch/core/roast/words';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { useHere, useShow } from '../parts/workshop';
import type { Pressing } from './NextAct';

/** What is smelled, heard and seen, by one press. */
export function Signs({ live, busy, press }: Pressing) {
  const { roast } = live.view;
  const [own, setOwn] = useState('');
  const noticed = new Set(roast.signs.map(({ what }) => what));
  const wanted = roast.plan?.steps.flatMap(({ until }) => (until?.what === 'sign' ? [until.sign] : [])) ?? [];
  const used = [...new Set([...SIGNS, ...wanted, ...live.view.ownSigns, ...noticed])];
  const last = roast.signs.at(-1);
  return (
    <section aria-label="What do you notice">
      <h2 className="mb-2 text-lg">What do you notice?</h2>
      <div className="flex flex-wrap gap-2 lg:grid lg:gap-1.5">
        {used.map((what) => (
          <button
            key={what}
            type="button"
            className="chip min-h-[52px]! lg:min-h-[44px]! lg:justify-start"
            aria-pressed={noticed.has(what)}
            disabled={busy}
            onClick={() => press('signs', { what })}
          >
            {what}
          </button>
        ))}
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (own.trim() === '') return;
            press('signs', { what: own.trim() });
            setOwn('');
          }}
        >
          <input
            className="entry w-44! min-w-0 lg:w-full!"
            placeholder="own words"
            aria-label="In your own words"
            value={own}
            maxLength={40}
            onChange={(event) => setOwn(event.target.value)}
          />
          <button type="submit" className="button px-3!" disabled={busy || own.trim() === ''}>
            Note
          </button>
        </form>
      </div>
      {last && (
        <button
          type="button"
          className="button button-quiet mt-1 px-0! text-sm"
          disabled={busy}
          onClick={() => press('undo', { what: 'sign' })}
        >
          Take “{last.what}” back
        </button>
      )}
    </section>
  );
}

/** A thermometer held into the beans. */
export function HandReading({ press }: { press: Pressing['press'] }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  return (
    <OneFigure
      label={`Beans, by hand (°${temperatureUnit})`}
      button="Log it"
      take={(value) => press('readings', { beanC: show.tempIn(value) })}
    />
  );
}

/** Another temperature than the program says. */
export function OwnSetting({ press }: { press: Pressing['press'] }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  return (
    <OneFigure
      label={`Set otherwise (°${temperatureUnit})`}
      button="Set"
      take={(value) => press('settings', { setC: show.tempIn(value) })}
    />
  );
}

function OneFigure({ label, button, take }: { label: string; button: string; take: (value: number) => void }) {
  const [text, setText] = useState('');
  const value = readNumber(text);
  const enter = (): void => {
    if (value === null) return;
    take(value);
    setText('');
  };
  return (
    <span className="flex items-end gap-2">
      <NumberBox label={label} value={text} onChange={setText} onEnter={enter} className="w-40" />
      <button type="button" className="button mb-0.5" disabled={value === null} onClick={enter}>
        {button}
      </button>
    </span>
  );
}
