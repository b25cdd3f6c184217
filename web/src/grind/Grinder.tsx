import { Link } from 'react-router';
import type { GrinderView } from '@wunsch/core/api/grind';
import type { Machine } from '@wunsch/core/workshop/schemas';
import { Caution, Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';

/** Above it hearing is protected, dB. */
const LOUD_DB = 85;

/** The machine under a bowl: what it really takes, what it saw, how long it ran, and how loud it is. */
export function Grinder({ grinder, machine }: { grinder: GrinderView | null; machine: Machine | null }) {
  const show = useShow();
  if (!grinder || !machine) return null;
  const { fill, hours, due, carries, cleaned } = grinder;
  return (
    <Section
      title={grinder.name}
      aside={`${Math.round(hours.run)} h run, ${grinder.grinds} ${grinder.grinds === 1 ? 'bowl' : 'bowls'}`}
    >
      {fill.sentence !== null && <p className="font-semibold">{fill.sentence}</p>}
      {due.map((sentence) => (
        <p key={sentence} className="font-semibold text-crimson">
          {sentence}
        </p>
      ))}
      <p className="text-sm text-soft">
        {[
          machine.rpm == null ? null : `${machine.rpm} turns a minute`,
          machine.tension ? `tension: ${machine.tension}` : null,
          machine.lid === true ? 'has a lid' : null,
          carries.length > 0
            ? `last allergens: ${carries.map(({ allergen, code }) => `${allergen} (${code})`).join(', ')}`
            : 'no allergen since it was last cleaned of them',
          cleaned ? `cleaned ${show.day(cleaned.at)}: ${cleaned.how}` : 'no cleaning is recorded',
        ]
          .filter((words) => words !== null)
          .join('; ')}
        .{' '}
        <Link className="link" to="/workshop">
          Record a cleaning or a service
        </Link>
      </p>
      {machine.noiseDb != null && machine.noiseDb >= LOUD_DB && (
        <div className="mt-2">
          <Caution>
            {machine.noiseDb} dB where you stand: wear hearing protection, and mind the neighbours at night.
          </Caution>
        </div>
      )}
    </Section>
  );
}
