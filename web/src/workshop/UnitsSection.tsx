import { useState } from 'react';
import { settingsChange } from '@wunsch/core/workshop/schemas';
import { send } from '../parts/api';
import { Attended } from './Attended';
import { readNumber } from '../parts/number';
import { Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { Field, useTyped } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';

/** The browser's own lists: every zone and currency that it can show. */
const names = (of: 'timeZone' | 'currency', also: string): string[] =>
  [...new Set([...Intl.supportedValuesOf(of), ...(of === 'timeZone' ? ['UTC'] : []), also])].sort();

const currencyName = (code: string): string =>
  `${code}, ${new Intl.DisplayNames('en-GB', { type: 'currency' }).of(code) ?? code}`;

/** Units, prices and times: made anew where another screen changed them and nothing is typed here. */
export function Units() {
  const { settings } = useHere().view;
  const [saved, setSaved] = useState(false);
  return (
    <Section title="Units, prices and times" aside={saved && <span role="status">Saved.</span>}>
      <UnitsForm key={JSON.stringify(settings)} done={setSaved} />
    </Section>
  );
}

function UnitsForm({ done }: { done: (saved: boolean) => void }) {
  const { settings } = useHere().view;
  const show = useShow();
  const record = useRecordForm('settings', settingsChange, () => settings);
  const named = (of: 'timeZone' | 'currency', word: (code: string) => string) =>
    names(of, settings[of]).map((code) => [code, word(code)] as const);
  return (
    <RecordSheet
      record={record}
      save={({ ratesFrom, ...body }) => {
        done(false);
        const isNew = body.wagePerHour !== settings.wagePerHour || body.energyPerKwh !== settings.energyPerKwh;
        return send('PUT', '/api/workshop/settings', { ...body, ...(isNew && ratesFrom ? { ratesFrom } : {}) });
      }}
      done={() => done(true)}
      submit="Save"
      className="grid grid-cols-2 items-start gap-4"
    >
      <Field className="col-span-2" at="name" />
      <Field at="massSystem" listed />
      <Field at="temperatureUnit" listed />
      <Field
        at="decimalMark"
        listed
        choices={[
          ['.', '0.5 g'],
          [',', '0,5 g'],
        ]}
      />
      <Field at="currency" listed choices={named('currency', currencyName)} />
      <Field at="timeZone" listed choices={named('timeZone', (zone) => zone.replaceAll('_', ' '))} />
      <Field at="wagePerHour" />
      <Field at="energyPerKwh" />
      <RatesFrom />
      <Field at="restDays" />
      <Field at="readingHours" />
      <Field at="lookDays" />
      <Field at="reinspectDays" />
      <Attended />
      <Field className="col-span-2" at="rejectReasons" />
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
    </RecordSheet>
  );
}

/** Asked once a cost is typed that is new. */
function RatesFrom() {
  const { settings } = useHere().view;
  const [wage, energy] = [readNumber(useTyped('wagePerHour')), readNumber(useTyped('energyPerKwh'))];
  if (wage === settings.wagePerHour && energy === settings.energyPerKwh) return null;
  return <Field className="col-span-2" at="ratesFrom" example="today" />;
}
