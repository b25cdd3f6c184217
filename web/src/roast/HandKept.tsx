import type { StationExtras } from '../entry/WorkBench';
import { useApi } from '../parts/api';
import { Chips, NumberBox } from '../parts/fields';
import { readNumber, unreadable } from '../parts/number';

const PROGRAM = '~program';
const MINUTES = '~inMinutes';
const SHOWN = 8;

/** What a roast that was not followed live says of itself: the program that it went by, and how long it was in. */
export function useHandKept(): StationExtras {
  const all = useApi('/api/roast/programs').data?.programs ?? [];
  const programs = all
    .filter(({ shelved }) => !shelved)
    .sort((a, b) => b.loads - a.loads)
    .slice(0, SHOWN);
  return {
    below: ({ fields, setField }) => (
      <div className="mt-4 grid gap-3">
        {programs.length > 0 && (
          <Chips
            legend="By which program"
            options={[...programs.map(({ id, program }) => [id, program.name] as const), ['', 'None of them'] as const]}
            chosen={[fields[PROGRAM]?.text ?? '']}
            choose={([id]) => setField(PROGRAM, { text: id ?? '' })}
          />
        )}
        <NumberBox
          className="max-w-40"
          label="In the roaster"
          unit="min"
          value={fields[MINUTES]?.text ?? ''}
          onChange={(text) => setField(MINUTES, { text })}
        />
      </div>
    ),
    problem: ({ fields }) =>
      unreadable(fields[MINUTES]?.text ?? '') === undefined ? null : 'The minutes in the roaster are not a number.',
    command: ({ fields }) => {
      const chosen = programs.find(({ id }) => id === fields[PROGRAM]?.text);
      const minutes = readNumber(fields[MINUTES]?.text ?? '');
      if (!chosen && minutes === null) return {};
      return {
        how: {
          ...(chosen ? { programId: chosen.id, version: chosen.version, plan: chosen.program } : {}),
          ...(minutes === null ? {} : { seconds: Math.round(minutes * 60) }),
        },
      };
    },
  };
}
