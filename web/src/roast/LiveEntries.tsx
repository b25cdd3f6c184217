import { ReadingLine } from '../parts/ReadingLine';
import { useShow } from '../parts/workshop';
import type { Note } from './usePress';

interface Props {
  workId: string;
  busy: boolean;
  note: Note;
}

/** A thermometer held into the beans. */
export function HandReading({ workId, busy, note }: Props) {
  const show = useShow();
  return (
    <ReadingLine
      id={`${workId}.beans`}
      label="Beans, by hand"
      unit={show.tempUnit}
      button="Log it"
      busy={busy}
      className="w-40"
      take={(value) => note('readings', { beanC: show.toCelsius(value) })}
    />
  );
}

/** Another temperature than the program says. */
export function OwnSetting({ workId, busy, note }: Props) {
  const show = useShow();
  return (
    <ReadingLine
      id={`${workId}.setting`}
      label="Set otherwise"
      unit={show.tempUnit}
      button="Set"
      busy={busy}
      className="w-40"
      take={(value) => note('settings', { setC: show.toCelsius(value) })}
    />
  );
}
