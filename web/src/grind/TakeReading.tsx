import { useState } from 'react';
import type { GrindView } from '@wunsch/core/api/types';
import { FELT } from '@wunsch/core/grind/fineness';
import { readSeries, type FieldSpec } from '../entry/entry';
import { StepForm } from '../entry/StepForm';
import type { Below } from '../entry/step-form';
import { getJson } from '../parts/api';
import { Chips } from '../parts/fields';
import { typedNumber } from '../parts/number';
import { useSave } from '../parts/save';
import { DrawnGauge } from './DrawnGauge';
import { fieldsFor } from '../entry/fields-for';

const READINGS = [
  { value: 'micron', label: 'By gauge' },
  { value: 'felt', label: 'By tongue' },
  { value: 'bowl-temperature', label: 'Temperature' },
  { value: 'taste', label: 'Taste' },
  { value: 'tension', label: 'Tension' },
  { value: 'note', label: 'Note' },
] as const;
/** What is read where nothing is foretold. */
const COARSE = [
  { value: 'pass', label: 'One more pass' },
  { value: 'texture', label: 'Texture' },
  { value: 'bowl-temperature', label: 'Temperature' },
  { value: 'taste', label: 'Taste' },
  { value: 'note', label: 'Note' },
] as const;
type Asked = (typeof READINGS)[number]['value'] | (typeof COARSE)[number]['value'];

const TASTES = [
  ['sourness', 'Sourness'],
  ['astringency', 'Astringency'],
  ['aroma', 'Aroma'],
] as const;
const SCORES = Array.from({ length: 11 }, (_, score) => [String(score), String(score)] as const);

/** What is asked for each thing that is read. */
const READING_FIELDS: Partial<Record<Asked, readonly FieldSpec[]>> = {
  micron: fieldsFor(
    'reading',
    ['channels', { at: 'value', label: 'Fineness', optional: false, hint: 'Dense band, each channel: 21 22' }],
    ['streaks', { hint: 'Each channel: 28 30' }],
  ),
  'bowl-temperature': fieldsFor('reading', ['value', { label: 'Bowl temperature', type: 'temp', optional: false }]),
  tension: fieldsFor('reading', ['value', { label: 'Tension, as your machine counts it', optional: false }]),
};

const mean = (values: readonly number[]): number =>
  Math.round((10 * values.reduce((sum, value) => sum + value, 0)) / values.length) / 10;

/** A reading at the stones, in under ten seconds: by number, on a drawn gauge, by tongue. */
export function TakeReading({ grind }: { grind: GrindView }) {
  const coarse = grind.machine?.coarse ?? false;
  const kinds: readonly { value: Asked; label: string }[] = coarse ? COARSE : READINGS;
  const [asked, setAsked] = useState<Asked>(coarse ? 'pass' : grind.machine?.conches ? 'taste' : 'micron');
  const [taste, setTaste] = useState<(typeof TASTES)[number][0]>('sourness');
  const what = asked === 'taste' ? taste : asked;
  const last = grind.readings.filter((row) => row.what === what && row.value !== null).at(-1)?.value;
  const inWords = asked === 'note' || asked === 'texture';
  return (
    <StepForm
      key={what}
      kind="reading"
      station={null}
      specs={[
        ...(READING_FIELDS[asked] ?? []),
        ...fieldsFor('reading', [
          'note',
          { label: asked === 'texture' ? 'Texture, in words' : 'Note', optional: !inWords },
        ]),
      ]}
      draftId={`reading.${grind.batch.id}.${what}`}
      past={
        last == null
          ? undefined
          : { value: { value: last, of: 'The last reading' }, channels: { value: last, of: 'The last reading' } }
      }
      problem={({ choices = {} }) =>
        asked === 'felt' && choices['felt'] === undefined
          ? 'Say how grainy it feels.'
          : asked === 'taste' && choices['score'] === undefined
            ? 'Say how much of it there is, 0 to 10.'
            : null
      }
      before={(choosing) => (
        <div className="mb-3 grid gap-3">
          <Chips
            legend="What is read"
            options={kinds.map(({ value, label }) => [value, label] as const)}
            chosen={[asked]}
            choose={([next]) => setAsked(next ?? 'micron')}
          />
          {asked === 'felt' && (
            <Chips
              legend="How it feels between tongue and palate"
              options={FELT.map(({ id, words }) => [id, words] as const)}
              chosen={FELT.flatMap(({ id }) => (id === choosing.choices['felt'] ? [id] : []))}
              choose={([next]) => choosing.choose('felt', next ?? '')}
            />
          )}
          {asked === 'taste' && (
            <>
              <Chips
                legend="Of what"
                options={TASTES}
                chosen={[taste]}
                choose={([next]) => setTaste(next ?? 'sourness')}
              />
              <Chips
                legend={`${TASTES.find(([id]) => id === taste)?.[1] ?? ''}: 0 is none of it, 10 all there can be`}
                options={SCORES}
                chosen={[choosing.choices['score'] ?? '']}
                choose={([next]) => choosing.choose('score', next ?? '')}
              />
            </>
          )}
        </div>
      )}
      below={(below) => asked === 'micron' && <MarkGauge grind={grind} form={below} last={last ?? 40} />}
      submit={asked === 'pass' ? 'It went through once more' : 'Save the reading'}
      finish={({ channels: read, streaks, ...values }, _sources, { choices = {} }) => {
        const channels = (read ?? []) as number[];
        return {
          note: '',
          value: null,
          ...values,
          batchId: grind.batch.id,
          what,
          ...(asked === 'micron'
            ? {
                value: mean(channels),
                ...(channels.length > 1 ? { channels } : {}),
                ...(Array.isArray(streaks) && streaks.length > 0 ? { streaks: streaks as number[] } : {}),
              }
            : {}),
          ...(asked === 'felt' ? { value: FELT.findIndex(({ id }) => id === choices['felt']) } : {}),
          ...(asked === 'taste' ? { value: Number(choices['score']) } : {}),
        };
      }}
    />
  );
}

const seriesText = (values: readonly number[]): string => values.map(typedNumber).join(' ');

/** The gauge as a drawing to mark, and the simulated one. */
function MarkGauge({ grind, form, last }: { grind: GrindView; form: Below; last: number }) {
  const [open, setOpen] = useState(false);
  const { busy, run } = useSave();
  const typed = readSeries(form.fields['channels']?.text ?? '') ?? [];
  const typedStreaks = readSeries(form.fields['streaks']?.text ?? '') ?? [];
  const begin = Math.min(95, Math.round(last));
  const channels = typed.length > 1 ? typed.slice(0, 4) : [typed[0] ?? begin, typed[0] ?? begin];
  const streaks = channels.map((band, i) => Math.max(band, Math.min(99, typedStreaks[i] ?? Math.round(band * 1.3))));
  const write = (bands: readonly number[], singles: readonly number[]): void => {
    form.setField('channels', { text: seriesText(bands) });
    form.setField('streaks', { text: seriesText(singles) });
  };
  return (
    <div className="mt-3">
      <div className="flex flex-wrap gap-2">
        <button type="button" className="chip" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close the drawing' : 'Mark it on a drawn gauge'}
        </button>
        <button
          type="button"
          className="button button-quiet text-sm"
          disabled={busy}
          onClick={() =>
            void run(async () => {
              const read = await getJson(`/api/grind/batches/${grind.batch.code}/gauge`);
              if (read.channels.length > 0) write(read.channels, read.streaks);
            })
          }
        >
          Draw down on the simulated gauge
        </button>
      </div>
      {open && (
        <div className="mt-2">
          <DrawnGauge channels={channels} streaks={streaks} mark={write} />
        </div>
      )}
    </div>
  );
}
