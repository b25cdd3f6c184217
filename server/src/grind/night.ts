import type { GrindTonight } from '@wunsch/core/grind/tonight';
import { clockText, dayText } from '@wunsch/core/units/zone';
import { Sheet } from '../print/sheet';
import type { Views } from '../ledger/views';
import type { ActView } from '@wunsch/core/api/grind';
import type { GrindRun } from './study';

/** Hours that the sheet looks ahead. */
const ROWS = 16;

/** A sheet to hang by the machine: what to expect, what to do, what to mind while it runs alone. */
export async function nightSheet(
  views: Views,
  { batch, machineId }: GrindRun,
  acts: readonly ActView[],
  found: GrindTonight,
): Promise<Uint8Array> {
  const { workshop } = views;
  const { settings } = workshop;
  const zone = settings.timeZone;
  const machine = machineId === null ? null : workshop.machines.get(machineId);
  const paper = new Sheet({ title: `${batch.code} tonight`, author: settings.name, at: workshop.now() });
  paper.write(`${batch.code} ${batch.name}`, { face: 'display', size: 26 });
  paper.write(`${machine?.name ?? 'No machine named'}, printed ${clockText(workshop.now(), zone).replace('T', ' ')}`, {
    size: 11,
  });
  paper.space(6);
  paper.rule();
  paper.write(found.sentence, { face: 'display', size: 20 });
  if (found.todo !== null) paper.write(found.todo, { size: 12 });
  paper.write(found.because.join(' '), { size: 10 });
  paper.space(8);
  const open = acts.filter(({ doneAt }) => doneAt === null);
  if (open.length > 0) {
    paper.heading('To do');
    paper.table(
      ['When', 'What', 'Done by'],
      open.map(({ id, dueAt, waitsWords: own, what }) => {
        const at = dueAt ?? found.expected[id] ?? null;
        const time = at === null ? '' : clockText(at, zone).replace('T', ' ');
        return [own === null ? time : `${time === '' ? '' : `about ${time}, `}${own}`, what, ''];
      }),
      [0.25, 0.5, 0.25],
    );
  }
  paper.heading('When somebody is here');
  paper.table(
    ['When', 'At target', 'About', 'Read', 'By'],
    found.attended
      .slice(0, ROWS)
      .map(({ at, chance, micron }) => [
        `${dayText(at, zone)} ${clockText(at, zone).slice(11)}`,
        `${Math.round(100 * chance)} %`,
        `${micron.toFixed(0)} µm`,
        '',
        '',
      ]),
    [0.28, 0.16, 0.16, 0.2, 0.2],
    [1, 2],
  );
  paper.heading('While it runs alone');
  paper.write(
    [
      settings.unattended
        ? `The workshop’s rule: ${settings.unattendedRule || 'none is written down yet; write it under Workshop.'}`
        : 'By the workshop’s rule nothing runs while nobody is here: stop the stones when you leave.',
      'Stones pinch and pull in: hair and sleeves tied, guards on, nothing in the bowl while it turns. Long runs heat wiring and motors: a tested cut-out, no loose plugs, nothing that burns beside it. Above about 85 dB wear hearing protection.',
      'Local codes and your insurer decide what may run unattended.',
    ].join('\n'),
    { size: 10 },
  );
  return paper.bytes();
}
