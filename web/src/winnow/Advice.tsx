import { useState } from 'react';
import { Link } from 'react-router';
import type { WinnowPastView } from '@wunsch/core/api/losses';
import { DIAL_NAMES, DIALS } from '@wunsch/core/winnow/response';
import { airAdvice, sampleShare, secondPass } from '@wunsch/core/winnow/samples';
import { judgeSieve } from '@wunsch/core/winnow/sieve';
import { NumberBox } from '../parts/fields';
import { readNumber, unreadable } from '../parts/number';
import { Overrule } from '../parts/Overrule';
import { priceOf } from '@wunsch/core/units/price';
import { useHere, useShow } from '../parts/workshop';
import { sieveOf, type Extras } from './extras';

/** What the samples say, and what a second run would bring. */
export function Advice({
  extras,
  past,
  huskG,
  inG,
  about,
}: {
  extras: Extras;
  past: WinnowPastView;
  huskG: number;
  inG: number;
  /** The step it is of, once it is weighed: what somebody knows better is kept with it. */
  about?: string;
}) {
  const { massSystem } = useHere().view.settings;
  const show = useShow();
  const [efficiency, setEfficiency] = useState('70');
  const [minutes, setMinutes] = useState('');
  const shell = sampleShare(extras.shell);
  const nib = sampleShare(extras.nib);
  const known = (pick: 'shell' | 'nib'): number[] =>
    past.sessions.flatMap((row) => (row[pick] === null ? [] : [row[pick]]));
  const air = airAdvice(shell, nib, { shell: known('shell'), nib: known('nib') });
  const usualMinutes = Math.max(1, Math.round((huskG / 1000) * past.minutesPerKgHusk));
  const isUnread = [efficiency, minutes].some((text) => unreadable(text) !== undefined);
  const pass =
    nib && huskG > 0 && !isUnread
      ? secondPass({
          huskG,
          nibInHusk: Number.isFinite(nib.low) ? nib : { ...nib, low: 0, high: 1 },
          efficiency: Math.min(1, Math.max(0, (readNumber(efficiency) ?? 70) / 100)),
          nibPerKg: past.nibPerKg,
          wagePerHour: past.wagePerHour,
          minutes: readNumber(minutes) ?? usualMinutes,
          massSystem,
        })
      : null;
  const sieve = sieveOf(extras);
  const cracked = sieve ? judgeSieve(sieve, inG, past.nibPerKg) : null;
  const money = (major: number): string => show.money(Math.round(major * 100_000));
  return (
    <section
      aria-label="What the samples say"
      aria-live="polite"
      className={`rounded-md px-4 py-3 ${air.tone === 'watch' ? 'bg-ripe-wash' : air.tone === 'good' ? 'bg-leaf-wash' : 'bg-sunk'}`}
    >
      <p className="figure text-[1.35rem] leading-snug">
        {air.sentence}
        {air.tone === 'watch' && !air.sure && <span className="text-base"> Not sure yet: pick another sample.</span>}
      </p>
      <p className="mt-1 text-[0.8125rem] text-soft">{air.evidence}</p>
      {about !== undefined && <Overrule judged="winnow" subject={about} said={air.sentence} />}
      {nib && huskG > 0 && (
        <div className="mt-3 border-t border-rule pt-3">
          {pass && (
            <>
              <p className="font-semibold">{pass.sentence}</p>
              <p className="mt-1 text-sm">
                {show.mass(pass.recoverG.low * 1000)} to {show.mass(pass.recoverG.high * 1000)} at{' '}
                {money(priceOf(past.nibPerKg, show.heavy))} a {show.heavyWord} are worth {money(pass.worth)}; the
                minutes cost {money(pass.cost)}.
              </p>
            </>
          )}
          <div className="mt-2 flex flex-wrap gap-4">
            <NumberBox
              label="It brings back"
              unit="% of that nib"
              value={efficiency}
              onChange={setEfficiency}
              className="w-44"
            />
            <NumberBox
              label="Minutes it takes"
              value={minutes}
              onChange={setMinutes}
              placeholder={`${usualMinutes}${past.timed ? '' : ', a guess'}`}
              className="w-44"
            />
          </div>
        </div>
      )}
      {cracked && (
        <p className="mt-3 border-t border-rule pt-3">
          <strong>{cracked.sentence}</strong> Fines and dust take about {show.mass(cracked.lostG * 1000)} of this load
          with them, {money(cracked.lostMoney)}.
        </p>
      )}
      <p className="mt-3 border-t border-rule pt-3 text-sm">
        {past.response.sentence}{' '}
        <span className="text-soft">
          {past.sessions.length} sessions on {past.family}.
        </span>
      </p>
      <PastSessions past={past} />
    </section>
  );
}

const SHOWN = 6;

/** The newest sessions on beans like these: what was set, what came of it. */
function PastSessions({ past }: { past: WinnowPastView }) {
  const show = useShow();
  const rows = past.sessions.slice(-SHOWN).reverse();
  if (rows.length === 0) return null;
  const share = (value: number | null): string => (value === null ? '–' : show.percent(value));
  return (
    <details>
      <summary className="label min-h-11 cursor-pointer py-3">The last {rows.length} on these beans</summary>
      <table className="w-full text-left text-sm">
        <thead className="label">
          <tr>
            {['Nibs in', 'Set to', 'Nib yield', 'Shell in nibs', 'Nib in husk'].map((name) => (
              <th key={name} className="pr-2 font-normal">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.stepId} className="border-t border-rule">
              <td className="py-1 pr-2">
                <Link className="code link" to={`/step/${row.stepId}`}>
                  {row.code}
                </Link>
              </td>
              <td className="pr-2">
                {DIALS.flatMap((dial) =>
                  row.dials[dial] == null ? [] : [`${DIAL_NAMES[dial]} ${row.dials[dial]}`],
                ).join(', ') || '–'}
              </td>
              <td className="figure pr-2">{show.percent(row.nibYield)}</td>
              <td className="pr-2">{share(row.shell)}</td>
              <td>{share(row.nib)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
