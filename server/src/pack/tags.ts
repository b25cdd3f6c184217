import { DomainError } from '@wunsch/core/errors/domain-error';
import { formatMass, formatPiece } from '@wunsch/core/units/mass';
import { dayText } from '@wunsch/core/units/zone';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import type { Views } from '../ledger/views';
import type { Tag } from './tag-pdf';
import { mouldsView } from '../mould/plugin';

/** A sack of a lot is asked for as `L012/3`: its third. */
const SACK = /^(.+)\/(\d{1,4})$/;

/** The label of a tub, block, lot, sack or mould. @throws DomainError `trace/unknown-code` */
export function tagOf(views: Views, asked: string): Tag {
  const { book, lots, settings } = views.workshop;
  const [, lotCode, sack] = SACK.exec(asked) ?? [];
  const holding = book.byCode((lotCode ?? asked).trim().toUpperCase()) ?? book.byCode(asked.trim());
  const mould = holding ? undefined : mouldsView(views).moulds.find(({ id }) => id === asked);
  if (mould)
    return {
      code: mould.name,
      lines: [`${mould.cavities} × ${formatPiece(mould.cavityG, settings.massSystem)}`, mould.painted ? 'painted' : ''].filter((line) => line !== ''),
      path: `/station/mould?mould=${encodeURIComponent(mould.id)}`,
    };
  if (!holding || (lotCode !== undefined && !lots.has(holding.id)))
    throw new DomainError('trace/unknown-code', `Nothing here carries the code ${asked}.`, [
      { path: 'code', message: 'is not known here' },
    ]);
  const view = views.holding(holding.id);
  const day = (at: number): string => dayText(at, settings.timeZone);
  const facts = lots.get(holding.id);
  if (sack !== undefined && (facts === undefined || Number(sack) < 1 || Number(sack) > facts.sacks))
    throw new DomainError('trace/unknown-code', `${holding.code} has ${facts?.sacks ?? 0} sacks.`, [
      { path: 'code', message: 'has no such sack' },
    ]);
  return {
    code: sack === undefined ? holding.code : `${holding.code} / ${sack}`,
    lines: [
      holding.name,
      sack === undefined
        ? view.pieces > 0
          ? `${view.pieces} pieces`
          : formatMass(view.massMg, settings.massSystem)
        : `sack ${sack} of ${facts?.sacks ?? 0}`,
      [view.batchCode ?? '', STATION_NAMES[view.place], day(view.since)].filter((word) => word !== '').join(', '),
      view.allergens.length > 0 ? `Contains ${view.allergens.join(', ')}` : '',
    ].filter((line) => line !== ''),
    path: facts ? `/lot/${encodeURIComponent(holding.code)}` : `/tub/${encodeURIComponent(holding.code)}`,
  };
}

/** Labels that one file holds. */
const MOST_SACKS = 500;

/** Labels of every sack of a lot. @throws DomainError `trace/unknown-code` */
export function sackTags(views: Views, lotCode: string): Tag[] {
  const { book, lots } = views.workshop;
  const facts = lots.get(book.byCode(lotCode.trim().toUpperCase())?.id ?? '');
  if (!facts) throw new DomainError('trace/unknown-code', `There is no lot ${lotCode}.`);
  if (facts.sacks > MOST_SACKS)
    throw new DomainError('pack/too-many', `${facts.sacks} sacks: at most ${MOST_SACKS} labels are printed at once.`);
  return Array.from({ length: facts.sacks }, (_, i) => tagOf(views, `${lotCode}/${i + 1}`));
}
