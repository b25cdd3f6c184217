import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { readOpening, type OpeningRow } from '@wunsch/core/money/opening-table';
import { heavyUnit } from '@wunsch/core/units/price';
import { readTable } from '../http/csv';
import type { Router } from '../http/router';

const MOST_ROWS = 1000;
const table = z.object({
  text: z.string().check(z.minLength(1, 'is empty'), z.maxLength(1_000_000, 'is too long')),
  /** The route that goods still on their way follow. */
  routeId: z._default(z.nullable(id), null),
});

/** Opening stock as a table: looked at first, then all of it or nothing. */
export function openingRoutes(router: Router): void {
  const { workshop } = router;
  const read = ({ text, routeId }: z.infer<typeof table>): OpeningRow[] => {
    const cells = readTable(text, { most: MOST_ROWS + 1, code: 'opening/broken-csv' });
    const { timeZone, massSystem } = workshop.settings;
    const { missing, rows } = readOpening(cells, { routeId, timeZone, heavy: heavyUnit(massSystem) });
    const fail = (code: string, words: string): never => {
      throw new DomainError(code, words, [{ path: 'text', message: 'does not fit' }]);
    };
    if (missing.length > 0) fail('opening/columns', `The table has no column for: ${missing.join(', ')}.`);
    if (rows.length === 0) fail('opening/empty', 'The table has no rows under its headings.');
    if (rows.length > MOST_ROWS) fail('opening/long', `More than ${MOST_ROWS} rows at once: split the table.`);
    return rows;
  };
  router.calc('/api/ledger/opening/preview', 'What a table of opening stock would bring in', table, (body) => ({
    rows: read(body),
  }));
  router.write(
    'POST',
    '/api/ledger/opening/table',
    'Take in a table of opening stock: all of it or nothing',
    z.extend(table, { personId: id }),
    ({ personId, ...body }) => {
      const rows = read(body);
      const bad = rows.filter(({ command }) => command === null);
      if (bad.length > 0)
        throw new DomainError(
          'opening/bad-rows',
          `${bad.length} of ${rows.length} rows cannot be read: line ${bad.map(({ line }) => line).join(', ')}.`,
          bad.map(({ line, problems }) => ({ path: `text.${line}`, message: problems.join('; ') })),
        );
      const codes = rows.map(({ command, at }) => {
        if (!command) throw new Error('a bad row was let through');
        const step = workshop.record(command, {
          personId,
          machineId: null,
          minutes: 0,
          energyKwh: 0,
          ...(at === null ? {} : { at }),
        });
        return workshop.book.holding(step.slots['good'] ?? '').code;
      });
      return { codes };
    },
  );
}
