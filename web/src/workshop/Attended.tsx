import { Field, useTyped } from '../record/Field';

const DAYS = [
  ['1', 'Mon'],
  ['2', 'Tue'],
  ['3', 'Wed'],
  ['4', 'Thu'],
  ['5', 'Fri'],
  ['6', 'Sat'],
  ['7', 'Sun'],
] as const;
/** Every half hour of a day, as minutes after midnight. */
const HALF_HOURS = Array.from({ length: 49 }, (_, index) => {
  const minutes = 30 * index;
  const text = `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
  return [String(minutes), text] as const;
});

/** The half hours, and the time that stands there where it is none of them. */
const withOwn = (minutes: string): readonly (readonly [string, string])[] =>
  minutes === '' || HALF_HOURS.some(([value]) => value === minutes)
    ? HALF_HOURS
    : [
        ...HALF_HOURS,
        [minutes, `${Math.floor(Number(minutes) / 60)}:${String(Number(minutes) % 60).padStart(2, '0')}`],
      ];

/** When somebody is there, and whether stones may run while nobody is. */
export function Attended() {
  const [from, to] = [useTyped('attended.fromMin'), useTyped('attended.toMin')];
  const unattended = useTyped<boolean>('unattended');
  return (
    <div className="col-span-2 grid grid-cols-2 items-start gap-4">
      <Field at="attended.fromMin" listed choices={withOwn(from)} />
      <Field at="attended.toMin" listed choices={withOwn(to)} />
      <div className="col-span-2">
        <Field at="attended.days" choices={DAYS} />
      </div>
      <div className="col-span-2">
        <Field at="unattended" />
        {unattended && <Field at="unattendedRule" />}
        <p className="mt-1 text-sm text-soft">
          Readings are planned into these hours. Local codes and your insurer decide what may run unattended.
        </p>
      </div>
    </div>
  );
}
