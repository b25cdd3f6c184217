import type { Page } from '@playwright/test';
import { expect } from './expect';

/* What single makers' journeys begin with: somebody, ingredients, nibs, a bowl. */

export interface Line {
  holdingId: string | null;
  code: string | null;
  kind: string | null;
  massMg: number;
}
export interface Step {
  id: string;
  batchCode: string | null;
  lines: Line[];
}

export async function post<T>(page: Page, path: string, data: unknown): Promise<T> {
  const answer = await page.request.post(path, { data });
  if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
  return (await answer.json()) as T;
}

/** Who works here; known once somebody was asked for. */
export let ann = '';
export async function somebody(page: Page): Promise<void> {
  const { people } = (await (await page.request.get('/api/workshop')).json()) as {
    people: { id: string; name: string }[];
  };
  ann =
    people.find(({ name }) => name === 'Ann')?.id ??
    (await post<{ id: string }>(page, '/api/workshop/people', { name: 'Ann' })).id;
}
export const enter = async (page: Page, command: object, head: object = {}): Promise<Step> =>
  (await post<{ step: Step }>(page, '/api/ledger/steps', { command, personId: ann, ...head })).step;
export const madeBy = (step: Step, kind?: string): string =>
  step.lines.find((row) => row.holdingId !== null && row.massMg > 0 && (kind === undefined || row.kind === kind))
    ?.holdingId ?? '';
export const material = async (page: Page, name: string, more: object = {}): Promise<string> =>
  (await post<{ id: string }>(page, '/api/workshop/materials', { name, kind: 'ingredient', ...more })).id;
export const bought = async (page: Page, materialId: string, massG: number): Promise<string> =>
  madeBy(await enter(page, { kind: 'buy', materialId, supplier: 'Shop', massG, price: 10 }));
export const nibs = async (page: Page, name: string, netG: number, routeId = 'straight-through', roasted = true) =>
  madeBy(await enter(page, { kind: 'receive', name, form: 'nibs', roasted, routeId, netG, currency: 'EUR' }));
export const charged = (page: Page, name: string, sources: object[], routeId = 'straight-through'): Promise<Step> =>
  enter(page, { kind: 'charge', batch: { name, routeId }, sources });

/** A batch of some nibs, poured and in temper. @returns code of the batch, and what is in temper */
export async function inTemper(
  page: Page,
  name: string,
  lot: string,
  nibsG: number,
): Promise<{ batch: string; pour: string; massG: number }> {
  const bowl = await charged(page, name, [{ holdingId: lot, massG: nibsG }]);
  const massG = nibsG - 100;
  const tub = madeBy(
    await enter(page, { kind: 'discharge', batchId: madeBy(bowl, 'mass'), outsG: [massG], holdUpG: 100 }),
  );
  const temper = { method: 'bath', meltC: 46, coolC: 27.5, workC: 32, test: 'set', note: '' };
  const pour = madeBy(await enter(page, { kind: 'temper', sources: [{ holdingId: tub, massG }], ...temper }));
  return { batch: bowl.batchCode ?? '', pour, massG };
}
/** Bars of 70 g of all that is in temper. */
export const mouldedBars = async (page: Page, pour: string, massG: number, goodPieces: number): Promise<string> =>
  madeBy(
    await enter(page, {
      kind: 'mould',
      sources: [{ holdingId: pour, massG }],
      barG: 70,
      cavities: 20,
      goodPieces,
      holdUpG: 50,
      note: '',
    }),
  );

export const readout = (page: Page, label: string | RegExp) =>
  page.getByLabel(label, typeof label === 'string' ? { exact: true } : {}).first();
export const saved = (page: Page) => expect(page.getByRole('status').filter({ hasText: 'Saved.' })).toBeVisible();
