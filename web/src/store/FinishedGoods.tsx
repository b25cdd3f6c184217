import { useState } from 'react';
import type { FinishedView, PlaceView } from '@wunsch/core/api/orders';
import { send, useApi } from '../parts/api';
import { SelectBox } from '../parts/choice';
import { useKept } from '../parts/draft';
import { Box, NumberBox } from '../parts/fields';
import { Marks } from '../parts/marks';
import { readNumber } from '../parts/number';
import { Code, Refusal, Section } from '../parts/pieces';
import { Listing, type Column } from '../parts/listing';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';
import { useColumns } from '../parts/columns';

/** So few days before its date that somebody should hurry. */
const SOON_DAYS = 60;
/** Packed goods by product, what expires first on top; where they stand and how the air is there. */
export function FinishedGoods() {
  const { data } = useApi('/api/orders/goods');
  const show = useShow();
  const column = useColumns(show);
  if (!data) return null;
  const past = data.goods.filter(({ daysLeft }) => daysLeft !== null && daysLeft < 0);
  const columns: Column<FinishedView>[] = [
    { id: 'code', head: 'Code', value: ({ code }) => code, show: ({ code }) => <Code code={code} kind="packed" /> },
    {
      id: 'product',
      head: 'Product',
      value: ({ product }) => product,
      show: (row) => <Packed row={row} places={data.places} />,
      filter: 'every product',
    },
    { id: 'bestBefore', head: 'Best before', value: ({ bestBefore }) => bestBefore, extra: true },
    {
      id: 'place',
      head: 'Where',
      value: ({ placeId }) => data.places.find(({ id }) => id === placeId)?.name ?? null,
      extra: true,
    },
    { id: 'promised', head: 'Promised', value: ({ promised }) => promised, right: true, extra: true },
    {
      id: 'pieces',
      head: 'Here',
      right: true,
      value: ({ pieces }) => pieces,
      show: ({ pieces }) => <span className="figure text-lg">{count(pieces)}</span>,
    },
    column.money('cost', 'A piece', ({ perPieceMilli }) => perPieceMilli, {
      show: ({ perPieceMilli }) => <span className="text-sm text-soft">{show.money(perPieceMilli)}</span>,
    }),
  ];
  return (
    <>
      <Section title="Bars" aside="what expires first on top">
        {past.length > 0 && (
          <p className="mb-2 border-l-4 border-crimson pl-3 font-semibold">
            {past.map(({ code }) => code).join(', ')} {past.length === 1 ? 'is' : 'are'} past the date: not sold any
            more as good.
          </p>
        )}
        <Listing
          label="Packed bars"
          rows={data.goods}
          columns={columns}
          rowId={({ holdingId }) => holdingId}
          prefix="bars-"
          pageSize={30}
          minWidth="0"
        />
      </Section>
      <Places places={data.places} goods={data.goods} />
    </>
  );
}

function Packed({ row, places }: { row: FinishedView; places: readonly PlaceView[] }) {
  const { daysLeft } = row;
  const tone =
    daysLeft !== null && daysLeft < 0
      ? 'text-crimson font-semibold'
      : daysLeft !== null && daysLeft < SOON_DAYS
        ? 'font-semibold'
        : 'text-soft';
  return (
    <>
      {row.product}
      <span className={`block text-sm ${tone}`}>
        {row.bestBefore === null
          ? 'no date'
          : `best before ${row.bestBefore}${daysLeft === null ? '' : daysLeft < 0 ? `, ${-daysLeft} days past` : daysLeft < SOON_DAYS ? `, ${daysLeft} days left` : ''}`}
        {row.placeId !== null && `, ${places.find(({ id }) => id === row.placeId)?.name ?? ''}`}
        {row.promised > 0 && `, ${count(row.promised)} promised`}
      </span>
      <Marks marks={row.marks} />
    </>
  );
}

/** Places where finished goods stand: their air as it was last read, and what is put there. */
function Places({ places, goods }: { places: readonly PlaceView[]; goods: readonly FinishedView[] }) {
  const { personId } = useHere();
  const show = useShow();
  const [name, setName, forgetName] = useKept('place.name', '');
  const [air, setAir] = useKept<Record<string, { tempC: string; humidity: string }>>('place.air', {});
  const [code, setCode, forgetCode] = useKept('place.goods', '');
  const [to, setTo] = useState('');
  const { busy, error, run, fail } = useSave();
  const write = (path: '' | `/${string}/climate` | `/${string}/goods`, body: object): Promise<boolean> => {
    if (personId === null) {
      fail(NOBODY);
      return Promise.resolve(false);
    }
    return run(() => send('POST', `/api/orders/places${path}`, { personId, ...body }));
  };
  const read = (id: string): void => {
    const typed = air[id] ?? { tempC: '', humidity: '' };
    const [t, h] = [readNumber(typed.tempC), typed.humidity.trim() === '' ? null : readNumber(typed.humidity)];
    if (t === null) return fail('The temperature is not a number.');
    if (typed.humidity.trim() !== '' && h === null) return fail('The humidity is not a number.');
    void write(`/${id}/climate`, { tempC: show.toCelsius(t), humidityPct: h }).then(
      (kept) => kept && setAir((now) => ({ ...now, [id]: { tempC: '', humidity: '' } })),
    );
  };
  const put = (): void => {
    const found = goods.find((row) => row.code.toLowerCase() === code.trim().toLowerCase());
    const place = to === '' ? (places[0]?.id ?? '') : to;
    if (!found) return fail(`No packed goods carry the code ${code}.`);
    void write(`/${place}/goods`, { holdingIds: [found.holdingId] }).then((kept) => kept && forgetCode());
  };
  const unit = show.tempUnit;
  return (
    <Section title="Where they stand" aside={`${show.temp(16)} to ${show.temp(18)}, dark, dry`}>
      <ul className="rows">
        {places.map((place) => (
          <li key={place.id} className="py-2">
            <div className="flex flex-wrap items-end gap-3">
              <span className="min-w-40 flex-1">
                <strong>{place.name}</strong>
                <span className="block text-sm text-soft">
                  {place.tempC === null || place.at === null
                    ? 'nobody read its air yet'
                    : `${show.temp(place.tempC)}${place.humidityPct === null ? '' : `, ${place.humidityPct.toFixed(0)}\u00a0% humidity`}, ${show.moment(place.at)}`}
                </span>
              </span>
              <NumberBox
                className="w-24"
                label="Now"
                unit={unit}
                value={air[place.id]?.tempC ?? ''}
                onEnter={() => read(place.id)}
                onChange={(tempC) =>
                  setAir((now) => ({ ...now, [place.id]: { humidity: now[place.id]?.humidity ?? '', tempC } }))
                }
              />
              <NumberBox
                className="w-24"
                label="Humidity"
                unit="%"
                value={air[place.id]?.humidity ?? ''}
                onEnter={() => read(place.id)}
                onChange={(humidity) =>
                  setAir((now) => ({ ...now, [place.id]: { tempC: now[place.id]?.tempC ?? '', humidity } }))
                }
              />
              <button type="button" className="button" disabled={busy} onClick={() => read(place.id)}>
                Log it
              </button>
            </div>
            {place.warning !== null && <p className="mt-1 border-l-4 border-crimson pl-3">{place.warning}</p>}
          </li>
        ))}
      </ul>
      {places.length > 0 && (
        <div className="mt-2 flex flex-wrap items-end gap-3">
          <Box className="w-40" label="Put code" value={code} onEnter={put} onChange={setCode} />
          <SelectBox
            className="w-48"
            label="into"
            value={to === '' ? (places[0]?.id ?? '') : to}
            options={places.map((place) => [place.id, place.name] as const)}
            onChange={setTo}
          />
          <button type="button" className="button" disabled={busy} onClick={put}>
            It stands there
          </button>
        </div>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Box className="w-56" label="Another place" value={name} onChange={setName} />
        <button
          type="button"
          className="button"
          disabled={busy}
          onClick={() => void write('', { name }).then((kept) => kept && forgetName())}
        >
          Add the place
        </button>
      </div>
      <Refusal error={error} />
    </Section>
  );
}
