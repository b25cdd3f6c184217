import type { Settings } from '@wunsch/core/workshop/schemas';
import { SelectBox } from '../parts/choice';
import { Box, Chips, Tick } from '../parts/fields';

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

/** When somebody is there, and whether stones may run while nobody is. */
export function Attended({
  settings,
  set,
}: {
  settings: Settings;
  set: <K extends keyof Settings>(key: K, value: Settings[K]) => void;
}) {
  const { attended, unattended, unattendedRule } = settings;
  const at = (minutes: number) =>
    HALF_HOURS.some(([value]) => value === String(minutes))
      ? HALF_HOURS
      : [
          ...HALF_HOURS,
          [String(minutes), `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`] as const,
        ];
  return (
    <div className="col-span-2 grid grid-cols-2 items-start gap-4">
      <SelectBox
        label="Somebody is here from"
        value={String(attended.fromMin)}
        options={at(attended.fromMin)}
        onChange={(value) => set('attended', { ...attended, fromMin: Number(value) })}
      />
      <SelectBox
        label="to"
        value={String(attended.toMin)}
        options={at(attended.toMin)}
        onChange={(value) => set('attended', { ...attended, toMin: Number(value) })}
      />
      <div className="col-span-2">
        <Chips
          several
          legend="On"
          options={DAYS}
          chosen={DAYS.flatMap(([day]) => (attended.days.includes(Number(day)) ? [day] : []))}
          choose={(days) => set('attended', { ...attended, days: days.map(Number).sort() })}
        />
      </div>
      <div className="col-span-2">
        <Tick checked={unattended} onChange={(on) => set('unattended', on)}>
          Stones may run while nobody is here
        </Tick>
        {unattended && (
          <Box
            label="By which rule of the workshop"
            value={unattendedRule}
            onChange={(text) => set('unattendedRule', text)}
            placeholder="smoke alarm, tested cut-out, own circuit; what the insurer allows"
          />
        )}
        <p className="mt-1 text-sm text-soft">
          Readings are planned into these hours. Local codes and your insurer decide what may run unattended.
        </p>
      </div>
    </div>
  );
}
