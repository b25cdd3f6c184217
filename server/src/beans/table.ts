import type { CommandOf } from '@wunsch/core/commands';
import { greenMg } from '@wunsch/core/trace/flow';
import { csv } from '../http/csv';
import type { Views } from '../ledger/views';
import { receiptOf } from './views';

/** All lots, oldest first, with headings that the import recognises. */
export function lotsCsv(views: Views): string {
  const { workshop } = views;
  const rows = [...workshop.lots]
    .filter(([id]) => workshop.book.entriesOf(id).length > 0)
    .map(([id, facts]) => ({ id, facts, receipt: receiptOf(views, id) }))
    .sort((a, b) => a.receipt.at - b.receipt.at)
    .map(({ id, facts, receipt }) => {
      const command = receipt.command as CommandOf<'receive'>;
      const holding = workshop.book.holding(id);
      return [
        holding.code,
        holding.name,
        facts.producer,
        facts.country,
        facts.region,
        facts.variety,
        facts.harvest,
        facts.sacks,
        greenMg(workshop.book, id) / 1e6,
        command.pricePerKg,
        command.currency,
        command.rate,
        command.freight,
        command.duty ?? 0,
        facts.moisturePct,
        new Date(receipt.at).toISOString(),
        facts.note,
        workshop.book.balance(id).massMg / 1e6,
        workshop.standing(id).standing,
      ];
    });
  const headings = [
    'code',
    'name',
    'producer',
    'country',
    'region',
    'variety',
    'harvest',
    'sacks',
    'net kg',
    'price per kg',
    'currency',
    'rate',
    'freight',
    'duty',
    'moisture',
    'received',
    'note',
    'left kg',
    'standing',
  ];
  return csv([headings, ...rows]);
}
