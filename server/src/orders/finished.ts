import type { FinishedGoodsView, PlaceView } from '@wunsch/core/api/orders';
import { byExpiry, climateWarning } from '@wunsch/core/orders/stock';
import { formatTemperature } from '@wunsch/core/units/temperature';
import { dayText } from '@wunsch/core/units/zone';
import type { Views } from '../ledger/views';
import { bestBeforeOf, productOf } from '../products/products';
import { ofKind, ordersView } from './orders';

const DAY_MS = 86_400_000;

/** Places where finished goods stand, each with its newest air. */
export function placesOf(views: Views): PlaceView[] {
  const { temperatureUnit } = views.workshop.settings;
  const places = new Map<string, PlaceView & { retired: boolean }>();
  for (const { value } of ofKind(views, 'place'))
    places.set(value.placeId, {
      id: value.placeId,
      name: value.facts.name,
      retired: value.facts.retired,
      tempC: null,
      humidityPct: null,
      at: null,
      warning: null,
    });
  for (const { value, at } of ofKind(views, 'climate')) {
    const place = places.get(value.placeId);
    if (!place || (place.at !== null && place.at > at)) continue;
    place.tempC = value.tempC;
    place.humidityPct = value.humidityPct;
    place.at = at;
    place.warning = climateWarning(value.tempC, value.humidityPct, (c) => formatTemperature(c, temperatureUnit));
  }
  return [...places.values()].filter(({ retired }) => !retired).map(({ retired: _, ...place }) => place);
}

/** Finished goods by code, what expires first on top. */
export function finishedGoods(views: Views): FinishedGoodsView {
  const { book, valuation, batches, settings, now } = views.workshop;
  const standsIn = new Map<string, string>();
  for (const { value } of ofKind(views, 'stored'))
    for (const holdingId of value.holdingIds) standsIn.set(holdingId, value.placeId);
  const promised = new Map<string, number>();
  for (const { lines } of ordersView(views).orders)
    for (const { picks } of lines)
      for (const { holdingId, pieces } of picks) promised.set(holdingId, (promised.get(holdingId) ?? 0) + pieces);
  const today = Date.parse(dayText(now(), settings.timeZone));
  const goods = book.standing.flatMap(({ id: holdingId, kind, code, name, batchId }): FinishedGoodsView['goods'] => {
    if (kind !== 'packed') return [];
    const product = productOf(views, holdingId);
    const bestBefore = bestBeforeOf(views, holdingId);
    return [
      {
        holdingId,
        code,
        name,
        productId: product?.id ?? null,
        product: product?.facts.name ?? name,
        batchCode: batches.get(batchId ?? '')?.code ?? null,
        bestBefore,
        daysLeft: bestBefore === null ? null : Math.round((Date.parse(bestBefore) - today) / DAY_MS),
        ...book.balance(holdingId),
        promised: promised.get(holdingId) ?? 0,
        perPieceMilli: valuation.perPieceMilli(holdingId),
        placeId: standsIn.get(holdingId) ?? null,
        marks: views.marks(holdingId),
      },
    ];
  });
  return { goods: goods.sort(byExpiry), places: placesOf(views) };
}
