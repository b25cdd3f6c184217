import type { Machine } from '@wunsch/core/workshop/schemas';
import { readNumber } from '../parts/number';
import type { Fields, FieldSpec, FieldState, Problems } from './entry';
import { When } from '../parts/dates';
import { entryHead } from '@wunsch/core/work/start';
import { fieldsFrom } from './fields-for';

export const WHEN = fieldsFrom(entryHead, ['minutes', { name: '~minutes' }], ['energyKwh', { name: '~kwh' }]);
export const AT: FieldSpec = { name: '~at', label: 'When', type: 'text', optional: true };

/** What is counted into the cost of an entry: as typed, or what is usual. */
export const costOf = (fields: Fields, minutes = 0, kwh = 0): { minutes: number; kwh: number } => ({
  minutes: readNumber(fields['~minutes']?.text ?? '') ?? minutes,
  kwh: readNumber(fields['~kwh']?.text ?? '') ?? kwh,
});

interface Props {
  machines: readonly Machine[];
  machineId: string | null;
  chooseMachine: (id: string | null) => void;
  fields: Fields;
  setField: (name: string, state: FieldState) => void;
  problems: Problems;
  minutes: number | undefined;
  kwh: number | undefined;
}

/** Machine, time and minutes of an entry: folded away, and said in its heading. */
export function Details({ machines, machineId, chooseMachine, fields, setField, problems, minutes, kwh }: Props) {
  const usual: Record<string, string> = {
    ...(minutes === undefined ? {} : { '~minutes': String(Math.round(minutes)) }),
    ...(kwh === undefined ? {} : { '~kwh': kwh.toFixed(2) }),
  };
  const name = machines.find(({ id }) => id === machineId)?.name;
  // What goes into the cost is said, also where nobody typed it.
  const cost = costOf(fields, minutes, kwh);
  const counted = [
    ...(name === undefined ? [] : [name]),
    `${Math.round(cost.minutes)} min by hand`,
    `${cost.kwh.toFixed(2)} kWh`,
  ].join(', ');
  const wrong = [...WHEN, AT].some((spec) => problems[spec.name] !== undefined);
  return (
    <details className="mt-3" open={wrong || undefined}>
      <summary className="label min-h-11 cursor-pointer py-3">
        {machines.length > 0 ? 'Machine, time and minutes' : 'Time and minutes'}: {counted}
      </summary>
      {machines.length > 0 && (
        <div className="mb-3 flex flex-wrap gap-2">
          {machines.map((machine) => (
            <button
              key={machine.id}
              type="button"
              className="chip"
              aria-pressed={machineId === machine.id}
              onClick={() => chooseMachine(machineId === machine.id ? null : machine.id)}
            >
              {machine.name}
            </button>
          ))}
        </div>
      )}
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-3">
        {WHEN.map((spec) => (
          <label key={spec.name} className="label">
            {spec.label} ({spec.unit})
            <input
              className="entry"
              inputMode="decimal"
              placeholder={usual[spec.name] ?? '0'}
              value={fields[spec.name]?.text ?? ''}
              aria-invalid={problems[spec.name] !== undefined}
              onChange={(event) => setField(spec.name, { text: event.target.value })}
            />
            <Wrong text={problems[spec.name]} />
          </label>
        ))}
        <When
          value={fields['~at']?.text ?? ''}
          problem={problems['~at']}
          onChange={(text) => setField('~at', { text })}
        />
      </div>
    </details>
  );
}

const Wrong = ({ text }: { text: string | undefined }) =>
  text === undefined ? null : <span className="mt-1 block text-sm font-semibold text-crimson">{text}</span>;
