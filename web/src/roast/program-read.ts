import type { Program, ProgramStep } from '@wunsch/core/roast/records';
import type { Part } from '../record/form';

function lastStep(read: Part<ProgramStep> | undefined, good: ProgramStep): ProgramStep {
  const until = read?.until;
  return {
    setC: read?.setC ?? good.setC,
    minutes: read?.minutes ?? good.minutes,
    note: read?.note ?? good.note,
    until:
      until === null
        ? null
        : until?.what === 'bean' && until.beanC !== undefined
          ? { what: 'bean', beanC: until.beanC }
          : until?.what === 'sign' && until.sign !== undefined
            ? { what: 'sign', sign: until.sign }
            : good.until,
  };
}

/**
 * A program to draw and to work with while it is typed: for every figure that cannot be read, the last that could.
 *
 * @param read what stands in its form, as far as it can be read
 * @param good what it was before; its last step stands in for steps that it had not
 */
export function lastGood(read: Part<Program>, good: Program): Program {
  const spare = good.steps.at(-1) ?? { setC: 120, minutes: 10, until: null, note: '' };
  return {
    name: read.name ?? good.name,
    kind: read.kind ?? good.kind,
    school: read.school ?? good.school,
    reason: read.reason ?? good.reason,
    roasterId: read.roasterId === undefined ? good.roasterId : read.roasterId,
    loadG: read.loadG ?? good.loadG,
    preheatC: read.preheatC ?? good.preheatC,
    stirEveryMin: read.stirEveryMin === undefined ? good.stirEveryMin : read.stirEveryMin,
    coolMin: read.coolMin ?? good.coolMin,
    steps: (read.steps ?? good.steps).map((row, index) => lastStep(row, good.steps[index] ?? spare)),
    suits: (read.suits ?? good.suits).flatMap((row) =>
      row?.family === undefined ? [] : [{ family: row.family, why: row.why ?? '' }],
    ),
    note: read.note ?? good.note,
  };
}
