import { Link } from 'react-router';
import { clock } from '@wunsch/core/roast/words';
import { useNow } from '../app/DueLine';
import { useApi } from '../parts/api';
import { Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';

/** Tubs that are still too warm to crack, each with its clock. */
export function Cooling() {
  const show = useShow();
  const now = useNow(1000);
  const { data } = useApi('/api/roast/cooling');
  const warm = (data?.cooling ?? []).filter(({ coolAt }) => coolAt > now);
  if (warm.length === 0) return null;
  return (
    <Section title="Cooling" aside="warm beans crack to dust and sweat in a closed tub">
      <ul className="rows">
        {warm.map(({ code, name, massMg, coolAt }) => (
          <li key={code} className="flex flex-wrap items-baseline gap-x-4 py-2">
            <Link className="code link" to={`/roasting/load/${code}`}>
              {code}
            </Link>
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <span className="text-soft">{show.mass(massMg)}</span>
            <span className="figure w-40 text-right text-xl">
              {clock((coolAt - now) / 1000)}
              <span className="block pt-1 font-sans text-sm font-normal text-soft">
                crack after {show.time(coolAt)}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
