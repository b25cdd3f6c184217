import { dayText } from '../units/zone';
import type { Gate, GateContext } from '../gates/gate';
import type { PackCommand } from './commands';
import { keepsUntil, usualKeeping } from './best-before';

/** A date that has passed, or that what is inside does not usually keep to. */
export function packGates(command: PackCommand, context: GateContext): Gate[] {
  const { timeZone } = context.settings;
  const packed = dayText(context.at, timeZone);
  if (command.bestBefore <= packed)
    return [
      {
        id: 'pack/date-past',
        sentence: `Best before ${command.bestBefore} is not after the day of packing, ${packed}.`,
        why: 'Goods past their date are not sold as good.',
        todo: 'Correct the date on the label.',
        path: 'bestBefore',
      },
    ];
  const made = context.book.firstEntry(command.holdingId)?.at ?? context.at;
  const keeping = usualKeeping(context.composition(command.holdingId), context.keeps);
  const last = dayText(keepsUntil(made, keeping).getTime(), timeZone);
  if (command.bestBefore <= last) return [];
  return [
    {
      id: 'pack/date-long',
      sentence: `Best before ${command.bestBefore} is later than the ${keeping.months} months that are usual: ${last}.`,
      why: `What bounds it: ${keeping.because}.`,
      todo: 'Take the usual date, or say what your own storage trial showed. How long goods with an ingredient keep can be set under Workshop.',
      path: 'bestBefore',
    },
  ];
}
