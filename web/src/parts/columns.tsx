import { majorFromMilli } from '@wunsch/core/units/money';
import { priceOf } from '@wunsch/core/units/price';
import type { Column } from './listing';
import { useHere, type Show } from './workshop';

type More<R> = Partial<Pick<Column<R>, 'extra' | 'show'>>;

/** Columns of the kinds that most lists have, in the units of the screen; in a table out grams, money and clock times. */
export function useColumns(show: Show) {
  const { currency } = useHere().view.settings;
  const money = <R,>(id: string, head: string, milli: (row: R) => number | null, more: More<R> = {}): Column<R> => ({
    id,
    head,
    unit: currency,
    right: true,
    value: (row) => {
      const amount = milli(row);
      return amount === null ? null : majorFromMilli(amount);
    },
    show: (row) => {
      const amount = milli(row);
      return amount === null ? '–' : show.money(amount);
    },
    ...more,
  });
  return {
    day: <R,>(id: string, head: string, at: (row: R) => number, more: More<R> = {}): Column<R> => ({
      id,
      head,
      value: (row) => show.clock(at(row)),
      show: (row) => <span className="whitespace-nowrap text-soft">{show.day(at(row))}</span>,
      ...more,
    }),
    mass: <R,>(id: string, head: string, mg: (row: R) => number, more: More<R> = {}): Column<R> => ({
      id,
      head,
      unit: 'g',
      right: true,
      value: (row) => mg(row) / 1000,
      show: (row) => show.mass(mg(row)),
      ...more,
    }),
    money,
    /** What a kilogram or a pound costs. */
    price: <R,>(id: string, perKgMilli: (row: R) => number | null, more: More<R> = {}): Column<R> =>
      money(
        id,
        `A ${show.heavyWord}`,
        (row) => {
          const price = perKgMilli(row);
          return price === null ? null : priceOf(price, show.heavy);
        },
        more,
      ),
  };
}
