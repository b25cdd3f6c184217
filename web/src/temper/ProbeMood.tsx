import { ask, useApi } from '../parts/api';
import { Chips } from '../parts/fields';

const URL = '/api/devices/pour/mood';
const MOODS = [
  ['steady', 'steady'],
  ['stuck', 'stuck'],
  ['unplugged', 'unplugged'],
] as const;

/** What the simulated probe of a pour does: what a real one may do too, to see what happens then. */
export function ProbeMood() {
  const { data: mood, mutate } = useApi(URL);
  if (!mood) return null;
  return (
    <details className="mt-2">
      <summary className="inline-flex min-h-11 cursor-pointer items-center text-sm underline">Simulated probe</summary>
      <Chips
        legend="It is"
        options={MOODS}
        chosen={[mood.unplugged ? 'unplugged' : mood.stuck ? 'stuck' : 'steady']}
        choose={([next]) =>
          void ask(URL, { stuck: next === 'stuck', unplugged: next === 'unplugged' }).then(() => mutate())
        }
      />
    </details>
  );
}
