import type { SortView } from '@wunsch/core/api/beans';
import { numberFormat } from '@wunsch/core/units/formats';
import { priceOf } from '@wunsch/core/units/price';
import { useHere, useShow } from '../parts/workshop';
import { PileIcon } from '../parts/drawings';

/** What sorting has found, what the rest will give and take, what to do. */
export function SortFindings({ view }: { view: SortView }) {
  const show = useShow();
  const { currency } = useHere().view.settings;
  const { summary, rest, advice, speeds } = view;
  const money = (major: number): string =>
    numberFormat({
      style: 'currency',
      currency,
      maximumFractionDigits: Math.abs(major) < 0.1 ? 3 : 2,
    }).format(major);
  const most = Math.max(...summary.reasons.map(({ grams }) => grams), 1);
  return (
    <div>
      <div
        className={`rounded-md px-4 py-3 ${advice.tone === 'watch' ? 'bg-ripe-wash' : advice.tone === 'good' ? 'bg-leaf-wash' : 'bg-sunk'}`}
      >
        <p className="figure text-[1.35rem] leading-snug">{advice.sentence}</p>
        {advice.todo !== null && <p className="mt-1">{advice.todo}</p>}
        <p className="mt-1 text-[0.8125rem] text-soft">{advice.evidence}</p>
        {summary.sessions > 0 && (
          <p className="mt-1 text-[0.8125rem] text-soft">
            One more percent rejected would cost {money(view.onePercentPerBar)} a bar.
          </p>
        )}
      </div>
      {summary.reasons.length > 0 && (
        <ul className="mt-3 grid gap-0.5">
          {summary.reasons.map(({ reason, grams, share }) => (
            <li key={reason} className="grid grid-cols-[1.75rem_6rem_minmax(0,1fr)_8rem] items-center gap-2">
              <PileIcon reason={reason} size={22} />
              <span>{reason}</span>
              <span className="block h-2 rounded-full bg-sunk">
                <span className="block h-full rounded-full bg-ink/60" style={{ width: `${(100 * grams) / most}%` }} />
              </span>
              <span className="text-right">
                <span className="figure">{show.mass(grams * 1000)}</span>{' '}
                <span className="text-sm text-soft">{show.percent(share)}</span>
              </span>
            </li>
          ))}
        </ul>
      )}
      {rest.leftG > 0 && (
        <p className="mt-3">
          The {show.mass(rest.leftG * 1000)} left will give{' '}
          <strong>
            {show.mass(rest.goodG.low * 1000)} to {show.mass(rest.goodG.high * 1000)} of good beans
          </strong>
          , take {hoursWords(rest.hours.low)} to {hoursWords(rest.hours.high)}, and cost{' '}
          {money(priceOf(rest.costPerGoodKg, show.heavy))} a {show.heavyWord} sorted.{' '}
          <span className="text-sm text-soft">
            {Math.round(100 * rest.level)}&nbsp;% interval, from {rest.basis}.
          </span>
        </p>
      )}
      {speeds.length > 0 && (
        <p className="mt-2 text-sm text-soft">
          {speeds
            .map(
              ({ person, kgPerHour, sessions }) =>
                `${person} ${show.heavyFromGrams(1000 * kgPerHour).toFixed(1)} ${show.heavy} an hour (${sessions})`,
            )
            .join(', ')}
          .
        </p>
      )}
    </div>
  );
}

const hoursWords = (hours: number): string => (hours < 1 ? `${Math.round(hours * 60)} min` : `${hours.toFixed(1)} h`);
