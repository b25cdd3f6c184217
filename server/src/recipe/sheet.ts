import { forward } from '@wunsch/core/recipe/forward';
import { feedPlan } from '@wunsch/core/recipe/order';
import { scaleTo } from '@wunsch/core/recipe/scale';
import { drawFrom } from '@wunsch/core/recipe/stock';
import { formatMass, massUnitFor } from '@wunsch/core/units/mass';
import { dayIn } from '@wunsch/core/units/zone';
import type { Views } from '../ledger/views';
import { usualBar } from '../ledger/expected';
import { Sheet } from '../print/sheet';
import type { RecipeVersion } from '@wunsch/core/recipe/book';
import { Pantry } from './pantry';
import { linesOf } from './views';

const BOX = '[   ]';

const clock = (minutes: number): string => `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')} h`;

/** A sheet to weigh by: what, from which tub, when it goes in, with boxes to tick and room for what was really weighed. */
export async function sheetPdf(views: Views, { recipe, version }: RecipeVersion, toG?: number): Promise<Uint8Array> {
  const { workshop } = views;
  const { settings } = workshop;
  const pantry = new Pantry(views);
  const grams = recipe.lines.map((line) => line.grams);
  const scaled = toG === undefined ? grams : scaleTo(grams, toG, recipe.stepG);
  const lines = linesOf(
    pantry,
    recipe.lines.map(({ ingredient }, index) => ({ ingredient, grams: scaled[index] ?? 0 })),
  ).filter((line) => line.grams > 0);
  const total = lines.reduce((sum, line) => sum + line.grams, 0);
  const { figures, allergens, line, cautions } = forward(lines, usualBar(views, '').barG);
  const unit = massUnitFor(total * 1000, settings.massSystem);
  const mass = (g: number): string => formatMass(g * 1000, settings.massSystem, g < total / 50 ? undefined : unit);
  const paper = new Sheet({ title: `${recipe.name}, version ${version}`, author: settings.name, at: workshop.now() });
  paper.write(recipe.name, { face: 'display', size: 30 });
  paper.write(`Version ${version}, ${mass(total)}, printed ${dayIn(settings.timeZone)(workshop.now())}`, { size: 11 });
  paper.space(6);
  paper.rule();
  paper.facts([
    ['Cocoa', `${figures.cocoaPct.toFixed(1)} %, ${figures.withoutButterPct.toFixed(1)} % without added butter`],
    [
      'Fat, sugar, milk',
      `${figures.fatPct.toFixed(1)} %, ${figures.sugarPct.toFixed(1)} %, ${figures.milkPct.toFixed(1)} %`,
    ],
    ['Ingredients', line],
    [
      'Allergens',
      allergens.length === 0
        ? 'none named of its ingredients'
        : allergens.map(({ allergen, from }) => `${allergen} (${from.join(', ')})`).join('; '),
    ],
    ['Scale', `steps of ${recipe.stepG} g`],
  ]);
  paper.heading('Weigh');
  paper.table(
    ['', 'What', 'Planned', 'From', 'Weighed'],
    lines.map(({ ingredient, grams: own }) => {
      const { taken, missingG } = drawFrom(pantry.stockOf(ingredient.id), own);
      const from = [
        ...taken.map((row) => `${row.line.code} ${mass(row.grams)}`),
        ...(missingG > 0 ? [`missing ${mass(missingG)}`] : []),
      ];
      return [BOX, ingredient.name, mass(own), from.join(', '), '............'];
    }),
    [0.07, 0.33, 0.16, 0.28, 0.16],
    [2],
  );
  paper.heading('Into the bowl');
  const order = feedPlan(
    lines.map(({ ingredient, grams: own }) => {
      const given = recipe.lines.find((row) => row.ingredient === ingredient.id);
      return {
        ingredient: ingredient.id,
        name: ingredient.name,
        role: ingredient.role,
        grams: own,
        atMinutes: given?.atMinutes ?? null,
        portions: given?.portions ?? null,
      };
    }),
  );
  paper.table(
    ['', 'After', 'What', 'How much', ''],
    order.map(({ atMinutes, name, grams: own, part, note }) => [
      BOX,
      clock(atMinutes),
      part === '' ? name : `${name}, ${part}`,
      mass(own),
      note,
    ]),
    [0.07, 0.12, 0.31, 0.16, 0.34],
    [3],
  );
  if (recipe.note !== '' || cautions.length > 0) {
    paper.heading('Mind');
    for (const text of [...cautions, recipe.note].filter((row) => row !== '')) paper.write(text, { size: 10 });
  }
  return paper.bytes();
}
