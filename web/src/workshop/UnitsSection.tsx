import { useState, type FormEvent } from 'react';
import type { Settings } from '@wunsch/core/workshop/schemas';
import { send } from '../parts/api';
import { Refusal, Section } from '../parts/pieces';
import { useHere } from '../parts/workshop';

export function Units() {
  const { view } = useHere();
  // Only what was changed here is kept here: the rest follows what other screens save.
  const [edits, setEdits] = useState<Partial<Settings>>({});
  const settings: Settings = { ...view.settings, ...edits };
  const [error, setError] = useState<unknown>(null);
  const [saved, setSaved] = useState(false);
  const set = <K extends keyof Settings>(key: K, value: Settings[K]): void => {
    setSaved(false);
    setEdits((now) => ({ ...now, [key]: value }));
  };
  const number = (
    key: 'wagePerHour' | 'energyPerKwh' | 'restDays' | 'readingHours' | 'lookDays' | 'reinspectDays',
    label: string,
  ) => (
    <label className="label">
      {label}
      <input
        className="entry"
        type="number"
        step="any"
        min="0"
        value={settings[key]}
        onChange={(event) => set(key, Number(event.target.value))}
      />
    </label>
  );
  const save = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const { demo: _, ...body } = settings;
    try {
      await send('PUT', '/api/workshop/settings', body);
      setError(null);
      setSaved(true);
    } catch (reason) {
      setError(reason);
    }
  };
  return (
    <Section title="Units, prices and times">
      <form onSubmit={(event) => void save(event)} className="grid grid-cols-2 gap-4">
        <label className="label col-span-2">
          Name of the workshop
          <input className="entry" value={settings.name} onChange={(event) => set('name', event.target.value)} />
        </label>
        <label className="label">
          Weights
          <select
            className="entry"
            value={settings.massSystem}
            onChange={(event) => set('massSystem', event.target.value as Settings['massSystem'])}
          >
            <option value="metric">g and kg</option>
            <option value="imperial">oz and lb</option>
          </select>
        </label>
        <label className="label">
          Temperatures
          <select
            className="entry"
            value={settings.temperatureUnit}
            onChange={(event) => set('temperatureUnit', event.target.value as Settings['temperatureUnit'])}
          >
            <option value="C">°C</option>
            <option value="F">°F</option>
          </select>
        </label>
        <label className="label">
          Currency
          <input
            className="entry"
            value={settings.currency}
            onChange={(event) => set('currency', event.target.value.toUpperCase())}
            maxLength={3}
          />
        </label>
        <label className="label">
          Time zone
          <input
            className="entry"
            value={settings.timeZone}
            onChange={(event) => set('timeZone', event.target.value)}
          />
        </label>
        {number('wagePerHour', 'An hour of work costs')}
        {number('energyPerKwh', 'A kWh costs')}
        {number('restDays', 'Days that blocks rest')}
        {number('readingHours', 'Hours between gauge readings')}
        {number('lookDays', 'Days between looks at the sacks')}
        {number('reinspectDays', 'Days until beans are inspected again')}
        <div className="col-span-2 flex items-center gap-3">
          <button type="submit" className="button button-main">
            Save
          </button>
          {saved && <span role="status">Saved.</span>}
        </div>
      </form>
      <Refusal error={error} />
    </Section>
  );
}
