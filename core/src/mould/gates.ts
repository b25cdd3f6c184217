import type { Asked, Gate, GateContext } from '../gates/gate';
import { MELTED_OUT_C } from '../composition/cocoa-butter';
import { formatTemperature } from '../units/temperature';

/** A pour that is not in temper, on its way into moulds. */
export function mouldGates(asked: Asked<'mould'>, context: GateContext): Gate[] {
  const { book } = context;
  for (const [index, { holdingId }] of asked.sources.entries()) {
    const holding = book.holdings.get(holdingId);
    if (holding?.kind !== 'tempered') continue;
    const pour = book.entriesOf(holdingId).findLast(({ kind, massMg }) => kind === 'temper' && massMg > 0);
    // What Temper wrote down of the pour.
    const command = book.steps.get(pour?.stepId ?? '')?.command as { test: string; workC: number } | undefined;
    if (!command) continue;
    const why =
      command.test === 'failed'
        ? 'its temper test failed'
        : command.workC > MELTED_OUT_C
          ? `it was worked at ${formatTemperature(command.workC, context.settings.temperatureUnit)}, where no stable crystal is left`
          : null;
    if (why === null) continue;
    return [
      {
        id: 'mould/out-of-temper',
        sentence: `${holding.code} is not in temper: ${why}.`,
        why: 'Bars from it stick, bloom and break soft.',
        todo: 'Temper it again: it waits at Temper. To be melted anyhow (baking, drinking), go on by name.',
        path: `sources.${index}.holdingId`,
      },
    ];
  }
  return [];
}
