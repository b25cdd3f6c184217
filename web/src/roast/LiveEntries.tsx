import { useState } from 'react';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { useHere, useShow } from '../parts/workshop';
import type { Pressing } from './NextAct';

/** A thermometer held into the beans. */
export function HandReading({ press }: { press: Pressing['press'] }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  return (
    <OneFigure
      label={`Beans, by hand (°${temperatureUnit})`}
      button="Log it"
      take={(value) => press('readings', { beanC: show.toCelsius(value) })}
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
      take={(value) => press('settings', { setC: show.toCelsius(value) })}
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
