import { DomainError } from '@wunsch/core/errors/domain-error';
import { labelOf, type Label, type LabelWish } from '@wunsch/core/pack/label';
import type { Market, LabelWords } from '@wunsch/core/pack/records';
import type { Views } from '../ledger/views';
import { chocolatePct } from '../ledger/chocolate-part';
import { bestBeforeOf, productOf } from '../products/products';
import type { RoomRecords } from '@wunsch/core/room-records';

/** Everything on the label of goods with a code. @throws DomainError where it may not be said so */
export function labelFor(views: Views, code: string, wish: Omit<LabelWish, 'words'>): Label {
  const { workshop } = views;
  const { book, compositions, materials, settings, lots } = workshop;
  const holding = book.byCode(code.trim().toUpperCase()) ?? book.byCode(code.trim());
  if (!holding)
    throw new DomainError('trace/unknown-code', `Nothing here carries the code ${code}.`, [
      { path: 'code', message: 'is not known here' },
    ]);
  const composition = compositions.of(holding.id);
  const first = book.firstEntry(holding.id);
  const made = book.entriesOf(holding.id).filter(({ pieces }) => pieces > 0);
  const pieces = made.reduce((sum, entry) => sum + entry.pieces, 0);
  const massMg = made.reduce((sum, entry) => sum + entry.massMg, 0);
  // Only one place is named: a blend is no origin.
  const places = [
    ...new Set(
      composition.lots
        .map(({ lotId }) => lots.get(lotId))
        .flatMap((facts) => (facts ? [[facts.country, facts.region].filter((word) => word !== '').join(', ')] : [''])),
    ),
  ];
  const product = productOf(views, holding.id);
  return labelOf(
    {
      name: product?.facts.name ?? holding.name.replace(/, [\d.]+ g$/, ''),
      chocolatePct: chocolatePct(views, holding.id),
      composition,
      inside: (rootId) => {
        const material = materials.get(book.holdings.get(rootId)?.materialId ?? '');
        const at = first?.at ?? workshop.now();
        return {
          allergens: material ? compositions.facts(material, at).allergens : [],
          within: [...(material?.madeOf ?? [])]
            .sort((a, b) => b.pct - a.pct)
            .flatMap(({ materialId }) => {
              const part = materials.get(materialId);
              return part ? [{ name: part.name, allergens: compositions.facts(part, at).allergens }] : [];
            }),
        };
      },
      carriedOver: [...new Set(compositions.carriedOver(holding.id).map(({ allergen }) => allergen))],
      meanG: pieces > 0 ? massMg / pieces / 1000 : null,
      origin: places.length === 1 && places[0] !== '' ? (places[0] ?? null) : null,
      code: holding.code,
      bestBefore: bestBeforeOf(views, holding.id),
      maker: settings.name,
    },
    {
      ...wish,
      netG:
        wish.netG ??
        (product && pieces > 0 && massMg / pieces / 1000 >= product.facts.declaredG
          ? product.facts.declaredG
          : undefined),
      words: wordsOf(workshop.records, wish.market),
    },
  );
}

/** Words of a language that somebody put in place of the usual ones. */
export const wordsOf = (records: RoomRecords, market: Market): LabelWords =>
  records.of('pack').findLast(({ value }) => value.market === market)?.value.words ?? {};

/** Points of a millimetre. */
