import { Link } from 'react-router';
import type { GrindView } from '@wunsch/core/api/types';
import { StationIcon } from '../parts/icons';
import { span, useShow } from '../parts/workshop';

/** A bowl on the stones, a line on the floor. */
export function GrindRow({ grind, now }: { grind: GrindView; now: number }) {
  const show = useShow();
  const last = grind.readings.filter(({ what }) => what === 'micron').at(-1);
  return (
    <li>
      <Link
        to={`/station/grind?batch=${grind.batch.code}`}
        className="grid min-h-[60px] grid-cols-[2rem_minmax(0,1fr)_auto_6.5rem] items-center gap-3 py-2 hover:bg-sunk"
      >
        <StationIcon station="grind" size={26} />
        <span className="min-w-0">
          <span className="block truncate">
            <span className="code">{grind.batch.code}</span> {grind.batch.name}
          </span>
          <span className="block truncate text-sm text-soft">
            Grind{grind.machine ? `, ${grind.machine.name}` : ''}, {span(now - grind.startedAt)} on the stones
          </span>
        </span>
        <span className="figure text-xl">{show.mass(grind.massMg)}</span>
        <span className="text-right text-sm">
          {last?.value == null ? 'not read yet' : `${last.value}\u00a0µm, wants\u00a0${grind.batch.targetMicron}`}
        </span>
      </Link>
    </li>
  );
}
