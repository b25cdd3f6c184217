import type { HoldingView } from '@wunsch/core/api/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { Listing, type Column } from './listing';
import { Marks } from './marks';
import { Code, KIND_NAMES } from './pieces';
import { count, useShow } from './workshop';
import { useColumns } from './columns';

/** Holdings as a list: what each is, since when, and how much of it is there. */
export function HoldingList({
  label,
  holdings,
  prefix,
}: {
  label: string;
  holdings: readonly HoldingView[];
  prefix: string;
}) {
  const show = useShow();
  const column = useColumns(show);
  const place = (holding: HoldingView): string =>
    holding.place === 'store' || holding.place === 'pantry' ? '' : `, at ${STATION_NAMES[holding.place]}`;
  const columns: Column<HoldingView>[] = [
    {
      id: 'code',
      head: 'Code',
      value: ({ code }) => code,
      show: ({ code, kind }) => <Code code={code} kind={kind} />,
    },
    {
      id: 'name',
      head: 'What',
      value: ({ name }) => name,
      show: (holding) => (
        <>
          {holding.name}
          <span className="block text-sm text-soft">
            {KIND_NAMES[holding.kind]}
            {place(holding)}, since {show.day(holding.since)}
          </span>
          <Marks marks={holding.marks} allergens={holding.allergens} />
        </>
      ),
    },
    { id: 'kind', head: 'Kind', value: ({ kind }) => KIND_NAMES[kind], extra: true, filter: 'every kind' },
    column.day('since', 'Since', ({ since }) => since, { extra: true }),
    {
      id: 'pieces',
      head: 'Pieces',
      right: true,
      extra: true,
      value: ({ pieces }) => (pieces > 0 ? pieces : null),
    },
    column.mass('mass', 'How much', ({ massMg }) => massMg, {
      show: ({ pieces, massMg }) => (
        <span className="figure text-lg">
          {pieces > 0 ? `${count(pieces)} ${pieces === 1 ? 'piece' : 'pieces'}` : show.mass(massMg)}
        </span>
      ),
    }),
  ];
  return (
    <Listing
      label={label}
      rows={holdings}
      columns={columns}
      rowId={({ id }) => id}
      prefix={prefix}
      pageSize={20}
      minWidth="0"
    />
  );
}
