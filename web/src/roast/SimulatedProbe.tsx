import type { RoastMood } from '@wunsch/core/api/reads';
import { send, useApi } from '../parts/api';
import { Chips } from '../parts/fields';
import { Refusal } from '../parts/pieces';
import { useSave } from '../parts/save';

const URL = '/api/devices/roast/mood';
const QUIET_C = 0.4;
const NOISY_C = 2.5;

type Named = 'steady' | 'noisy' | 'stuck' | 'unplugged';

const named = ({ noiseC, stuck, unplugged }: RoastMood): Named =>
  unplugged ? 'unplugged' : stuck ? 'stuck' : noiseC > 1 ? 'noisy' : 'steady';

const SPEEDS = [1, 10, 60] as const;

/** The simulated probe's moods: what a real one may do, to see what happens then. */
export function SimulatedProbe({ speeds }: { speeds: boolean }) {
  const { data: mood } = useApi(URL);
  const { error, run } = useSave();
  if (!mood) return null;
  const put = (part: Partial<RoastMood>): void => void run(() => send('POST', URL, { ...mood, ...part }));
  return (
    <div className="mt-3 grid gap-3">
      <Chips
        legend="The simulated probe is"
        options={(['steady', 'noisy', 'stuck', 'unplugged'] as const).map((name) => [name, name] as const)}
        chosen={[named(mood)]}
        choose={([name]) =>
          put({
            stuck: name === 'stuck',
            unplugged: name === 'unplugged',
            noiseC: name === 'noisy' ? NOISY_C : QUIET_C,
          })
        }
      />
      {speeds && (
        <Chips
          legend="The next simulated roast runs"
          options={SPEEDS.map(
            (speed) => [String(speed), speed === 1 ? 'by the clock' : `${speed} times as fast`] as const,
          )}
          chosen={[String(mood.speed)]}
          choose={([speed]) => put({ speed: Number(speed) })}
        />
      )}
      <Refusal error={error} />
    </div>
  );
}
