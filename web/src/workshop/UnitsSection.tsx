import { useState, type SubmitEvent, type ReactNode } from 'react';
import type { Settings } from '@wunsch/core/workshop/schemas';
import { send } from '../parts/api';
import { Box, NumberBox } from '../parts/fields';
import { Attended } from './Attended';
import { readNumbers } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { SelectBox } from '../parts/choice';
import { DayBox } from '../parts/dates';

const NUMBERS = {
  wagePerHour: 'An hour of work costs',
  energyPerKwh: 'A kWh costs',
  restDays: 'Days that blocks rest',
  readingHours: 'Hours between gauge readings',
  lookDays: 'Days between looks at the sacks',
  reinspectDays: 'Days until beans are inspected again',
} as const;
type NumberKey = keyof typeof NUMBERS;
const KEYS = Object.keys(NUMBERS) as NumberKey[];

/** The browser's own lists: every zone and currency that it can show. */
const names = (of: 'timeZone' | 'currency', also: string): string[] =>
  [...new Set([...Intl.supportedValuesOf(of), ...(of === 'timeZone' ? ['UTC'] : []), also])].sort();

const currencyName = (code: string): string =>
  `${code}, ${new Intl.DisplayNames('en-GB', { type: 'currency' }).of(code) ?? code}`;

export function Units() {
  const { view } = useHere();
  const show = useShow();
  // Only what was changed here is kept here: the rest follows what other screens save.
  const [edits, setEdits] = useState<Partial<Settings>>({});
  const [typed, setTyped] = useState<Partial<Record<NumberKey, string>>>({});
  const [ratesFrom, setRatesFrom] = useState('');
  const [reasons, setReasons] = useState<string | null>(null);
  const [now] = useState(Date.now);
  const settings: Settings = { ...view.settings, ...edits };
  const [error, setError] = useState<unknown>(null);
  const [saved, setSaved] = useState(false);
  const set = <K extends keyof Settings>(key: K, value: Settings[K]): void => {
    setSaved(false);
    setEdits((before) => ({ ...before, [key]: value }));
  };
  const texts = Object.fromEntries(KEYS.map((key) => [key, typed[key] ?? String(view.settings[key])])) as Record<
    NumberKey,
    string
  >;
  const { values, wrong } = readNumbers(texts);
  const missing = KEYS.filter((key) => values[key] === null);
  const newRates = (['wagePerHour', 'energyPerKwh'] as const).some((key) => values[key] !== view.settings[key]);
  const number = (key: NumberKey): ReactNode => (
    <NumberBox
      label={NUMBERS[key]}
      value={texts[key]}
      problem={wrong[key] ?? (values[key] === null ? 'is missing' : undefined)}
      onChange={(text) => {
        setSaved(false);
        setTyped((before) => ({ ...before, [key]: text }));
      }}
    />
  );
  const save = async (event: SubmitEvent): Promise<void> => {
    event.preventDefault();
    if (missing.length > 0) {
      setError(new Error(`Look again at: ${missing.map((key) => NUMBERS[key]).join(', ')}.`));
      return;
    }
    const { demo: _, earlierRates: _r, ...body } = settings;
    try {
      await send('PUT', '/api/workshop/settings', {
        ...body,
        ...values,
        ...(reasons === null
          ? {}
          : {
              rejectReasons: reasons
                .split(',')
                .map((word) => word.trim())
                .filter((word) => word !== ''),
            }),
        ...(newRates && ratesFrom !== '' ? { ratesFrom } : {}),
      });
      setError(null);
      setEdits({});
      setTyped({});
      setReasons(null);
      setRatesFrom('');
      setSaved(true);
    } catch (reason) {
      setSaved(false);
      setError(reason);
    }
  };
  return (
    <Section title="Units, prices and times">
      <form onSubmit={(event) => void save(event)} className="grid grid-cols-2 items-start gap-4" noValidate>
        <Box
          className="col-span-2"
          label="Name of the workshop"
          value={settings.name}
          onChange={(text) => set('name', text)}
        />
        <SelectBox
          label="Weights"
          value={settings.massSystem}
          options={[
            ['metric', 'g and kg'],
            ['imperial', 'oz and lb'],
          ]}
          onChange={(value) => set('massSystem', value)}
        />
        <SelectBox
          label="Temperatures"
          value={settings.temperatureUnit}
          options={[
            ['C', '°C'],
            ['F', '°F'],
          ]}
          onChange={(value) => set('temperatureUnit', value)}
        />
        <SelectBox
          label="Half a gram is written"
          value={settings.decimalMark}
          options={[
            ['.', '0.5 g'],
            [',', '0,5 g'],
          ]}
          onChange={(value) => set('decimalMark', value)}
        />
        <SelectBox
          label="Currency"
          value={settings.currency}
          options={names('currency', settings.currency).map((code) => [code, currencyName(code)] as const)}
          onChange={(value) => set('currency', value)}
        />
        <SelectBox
          label="Time zone"
          value={settings.timeZone}
          options={names('timeZone', settings.timeZone).map((zone) => [zone, zone.replaceAll('_', ' ')] as const)}
          onChange={(value) => set('timeZone', value)}
        />
        {number('wagePerHour')}
        {number('energyPerKwh')}
        {newRates && (
          <DayBox
            className="col-span-2"
            label="The new costs hold from"
            value={ratesFrom === '' ? show.clock(now).slice(0, 10) : ratesFrom}
            onChange={setRatesFrom}
            hint="Work done before that day, entered late or corrected, is costed at what held then."
          />
        )}
        {KEYS.slice(2).map((key) => (
          <div key={key}>{number(key)}</div>
        ))}
        <Attended settings={settings} set={set} />
        <Box
          className="col-span-2"
          label="Piles of your own when sorting, apart by commas"
          value={reasons ?? settings.rejectReasons.join(', ')}
          onChange={(text) => {
            setSaved(false);
            setReasons(text);
          }}
          placeholder="slaty, double"
        />
        {settings.earlierRates.length > 0 && (
          <ul className="col-span-2 text-sm text-soft">
            {[...settings.earlierRates].reverse().map((rates) => (
              <li key={rates.until}>
                Before {rates.until}: {show.money(Math.round(rates.wagePerHour * 100_000))} an hour,{' '}
                {show.money(Math.round(rates.energyPerKwh * 100_000))} a kWh
              </li>
            ))}
          </ul>
        )}
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
