import { DomainError } from '@wunsch/core/errors/domain-error';
import { calculatorRoutes } from './http/calculators';
import type { Calculators } from './http/calculating';
import { labelPdf } from './pack/label-pdf';
import { tagPdf } from './pack/tag-pdf';
import { drawSheet } from './print/sheet';
import { roastCalculators } from './roast/calculators';
import { previewCurve, readCurveText } from './roast/import';
import { drawCards } from './taste/cards';
import { tasteCalculators } from './taste/calculators';
import { temperCalculators } from './temper/calculators';
import { trialCalculators } from './trials/calculators';
import type { Said, TaskName } from './heavy/away';

/** Calculations by their address. */
const calculations = new Map<string, (body: never) => unknown>();
const book: Calculators = {
  calc: () => undefined,
  away: (url, _summary, _body, answer) => void calculations.set(url, answer),
};
for (const register of [calculatorRoutes, roastCalculators, temperCalculators, tasteCalculators, trialCalculators])
  register(book);

/** What can be done away from everybody else: plain data in, plain data out. */
const TASKS: Record<TaskName, (...given: never[]) => unknown> = {
  calculate: (url: string, body: unknown): unknown => calculations.get(url)?.(body as never),
  'curve preview': previewCurve,
  'curve table': readCurveText,
  sheet: drawSheet,
  cards: drawCards,
  label: labelPdf,
  tags: tagPdf,
};

/** Does one of them; a refusal comes back in words, as its kind does not survive the way. */
export async function perform(task: TaskName, args: readonly unknown[]): Promise<Said<unknown>> {
  try {
    return { value: await TASKS[task](...(args as never[])) };
  } catch (error) {
    if (!(error instanceof DomainError)) throw error;
    const { code, message, fields, facts } = error;
    return { refused: { code, message, fields: [...fields], facts: { ...facts } } };
  }
}
