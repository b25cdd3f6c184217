import { useState } from 'react';
import type { GrindView } from '@wunsch/core/api/types';
import { FELT } from '@wunsch/core/grind/fineness';
import { type FieldSpec } from '../entry/entry';
import { StepForm } from '../entry/StepForm';
import { Chips } from '../parts/fields';
import { typedNumber } from '../parts/number';
import { SimulatedGaugeButton } from './Stones';

const READINGS = [
  { value: 'micron', label: 'Fineness, µm' },
  { value: 'felt', label: 'Felt by tongue' },
  { value: 'bowl-temperature', label: 'Bowl temperature' },
  { value: 'sourness', label: 'Sourness 0–10' },
  { value: 'note', label: 'Only a note' },
] as const;

/** What is asked for each thing that is read. */
const READING_FIELDS: Record<string, readonly FieldSpec[]> = {
  micron: [
    {
      name: 'channels',
      at: 'value',
      label: 'Fineness',
      type: 'series',
      unit: 'µm',
      hint: 'Each channel as read: 21 22 20',
    },
  ],
  'bowl-temperature': [{ name: 'value', label: 'Bowl temperature', type: 'temp' }],
  sourness: [{ name: 'value', label: 'Sourness, 0 to 10', type: 'number' }],
  felt: [],
  note: [],
};

const mean = (values: readonly number[]): number =>
  Math.round((10 * values.reduce((sum, value) => sum + value, 0)) / values.length) / 10;

/** One reading, of whatever is read. */
export function TakeReading({ grind }: { grind: GrindView }) {
  const [what, setWhat] = useState<string>('micron');
  const last = grind.readings.filter((row) => row.what === what && row.value !== null).at(-1)?.value;
  return (
    <StepForm
      key={what}
      kind="reading"
      station={null}
      specs={[
        ...(READING_FIELDS[what] ?? []),
        { name: 'note', label: 'Note', type: 'text', optional: what !== 'note' },
      ]}
      draftId={`reading.${grind.batch.id}.${what}`}
      past={
        last == null
          ? undefined
          : { value: { value: last, of: 'The last reading' }, channels: { value: last, of: 'The last reading' } }
      }
      problem={({ choices = {} }) =>
        what === 'felt' && choices['felt'] === undefined ? 'Say how grainy it feels.' : null
      }
      before={({ choices, choose, write }) => (
        <div className="mb-3 grid gap-3">
          <Chips
            legend="What is read"
            options={READINGS.map(({ value, label }) => [value, label] as const)}
            chosen={[what as (typeof READINGS)[number]['value']]}
            choose={([next]) => setWhat(next ?? 'micron')}
          />
          {what === 'micron' && (
            <div>
              <SimulatedGaugeButton grind={grind} onRead={(micron) => write('channels', typedNumber(micron))} />
            </div>
          )}
          {what === 'felt' && (
            <Chips
              legend="How it feels between tongue and palate"
              options={FELT.map(({ id, words }) => [id, words] as const)}
              chosen={FELT.flatMap(({ id }) => (id === choices['felt'] ? [id] : []))}
              choose={([next]) => choose('felt', next ?? '')}
            />
          )}
        </div>
      )}
      path="/api/ledger/steps"
      submit="Save the reading"
      finish={({ channels: read, ...values }, _sources, { choices = {} }) => {
        const channels = (read ?? []) as number[];
        return {
          note: '',
          ...values,
          batchId: grind.batch.id,
          what,
          ...(what === 'micron' ? { value: mean(channels), ...(channels.length > 1 ? { channels } : {}) } : {}),
          ...(what === 'felt' ? { value: FELT.findIndex(({ id }) => id === choices['felt']) } : {}),
          ...(what === 'note' ? { value: null } : {}),
        };
      }}
    />
  );
}
