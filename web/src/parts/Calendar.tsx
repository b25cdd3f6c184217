import { useState } from 'react';
import { DayPicker } from 'react-day-picker';
import { enGB } from 'react-day-picker/locale';

const two = (value: number): string => String(value).padStart(2, '0');

/** The day of an ISO text as the calendar takes it: at midnight of this machine's clock, whose zone means nothing here. */
const dateOf = (iso: string): Date | undefined => {
  if (iso === '') return undefined;
  const [year = 0, month = 1, day = 1] = iso.split('-').map(Number);
  return new Date(year, month - 1, day);
};

const round = 'grid size-10 place-items-center rounded-full';

/** A month to take a day from. @param day chosen, @param today in the workshop, both `2026-11-26`, empty: none */
export default function Calendar({
  day,
  today,
  choose,
}: {
  day: string;
  today: string;
  choose: (day: string) => void;
}) {
  const [now] = useState(() => new Date());
  const here = dateOf(today) ?? now;
  return (
    <DayPicker
      mode="single"
      required
      autoFocus
      locale={enGB}
      today={here}
      selected={dateOf(day)}
      defaultMonth={dateOf(day) ?? here}
      onSelect={(date) => choose(`${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`)}
      classNames={{
        root: 'p-1',
        months: 'relative',
        month_caption: 'flex h-11 items-center px-2 font-display text-lg',
        nav: 'absolute right-0 top-0 z-10 flex',
        button_previous: 'grid size-11 place-items-center',
        button_next: 'grid size-11 place-items-center',
        chevron: 'size-5 fill-current',
        month_grid: 'border-collapse',
        weekday: 'label h-8 w-10 text-center font-normal',
        day: 'p-0 text-center',
        day_button: `${round} hover:bg-sunk`,
        today: 'font-bold text-leaf',
        selected: '[&>button]:bg-ink [&>button]:text-on-ink',
        outside: 'text-soft',
      }}
    />
  );
}
