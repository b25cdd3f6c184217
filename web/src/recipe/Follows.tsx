import type { PantryRow, PantryView } from '@wunsch/core/api/recipe';
import { judgeLabel } from '@wunsch/core/recipe/correct';
import { forward, needsOf, whichSacks } from '@wunsch/core/recipe/forward';
import type { Line } from '@wunsch/core/recipe/ingredient';
import { placeAmong } from '@wunsch/core/recipe/thickness';
import { useApi } from '../parts/api';
import { Caution, Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';

/** `about 12, 11 to 13`; one figure where both ends are the same. */
const spread = (
  { mean, low, high }: { mean: number; low: number; high: number },
  show: (value: number) => string,
): string => (low === high ? show(mean) : `${show(mean)}, ${show(low)} to ${show(high)}`);

/** Everything that follows from grams: label, allergens, cost, bars, what it takes, and what to mind. */
export function Follows({
  lines,
  pantry,
  labelPct,
  machine,
}: {
  lines: readonly Line[];
  pantry: PantryView;
  labelPct: number | null;
  machine: { id: string; name: string } | null;
}) {
  const show = useShow();
  if (!lines.some(({ grams }) => grams > 0)) return null;
  const { figures, line, allergens, classes, bars, cautions } = forward(lines, pantry.barG);
  const label = labelPct === null ? null : judgeLabel(labelPct, figures.cocoaPct);
  // The strictest class of each reference: the others follow from it.
  const met = ['Codex', '21 CFR'].flatMap(
    (source) => classes.find((row) => row.lacks.length === 0 && row.source.startsWith(source)) ?? [],
  );
  const nearest = classes.find(({ lacks }) => lacks.length > 0);
  const needs = lines.flatMap(({ ingredient, grams }) => {
    const row = pantry.rows.find(({ id }) => id === ingredient.id);
    return row?.lot && grams > row.stockG + 0.5 ? [{ row, needs: needsOf(grams - row.stockG, row.lot) }] : [];
  });
  const missing = lines.flatMap(({ ingredient, grams }) => {
    const row = pantry.rows.find(({ id }) => id === ingredient.id);
    return row && !row.lot && grams > row.stockG + 0.5 ? [{ row, grams: grams - row.stockG }] : [];
  });
  const assumed = lines.filter(({ ingredient, grams }) => grams > 0 && ingredient.assumed);
  return (
    <>
      {label && (
        <section
          aria-label="The label"
          className={`mb-4 rounded-md px-4 py-3 ${label.tone === 'watch' ? 'bg-ripe-wash' : 'bg-sunk'}`}
        >
          <p className="font-semibold">{label.sentence}</p>
          {label.todo !== null && <p className="mt-1 text-sm">{label.todo}</p>}
        </section>
      )}
      <Section title="On the label">
        <p>{line}</p>
        <p className="mt-1 text-sm">
          {allergens.length === 0 ? (
            <span className="text-soft">
              No allergen named of these ingredients; what machines carry over stands on the bowl.
            </span>
          ) : (
            <strong>
              Contains {allergens.map(({ allergen, from }) => `${allergen} (${from.join(', ')})`).join('; ')}.
            </strong>
          )}
        </p>
        <p className="mt-2 text-sm text-soft">
          {met.length > 0
            ? `Figures of: ${met.map(({ name, source }) => `${name} (${source})`).join(', ')}.`
            : nearest
              ? `Nearest class: ${nearest.name} (${nearest.source}); lacks ${nearest.lacks.join(', ')}.`
              : ''}{' '}
          Your local code decides.
        </p>
      </Section>
      <Section title="What it takes">
        <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1.5 text-sm">
          <dt className="text-soft">Cost</dt>
          <dd>
            {show.price(figures.perKgMilli)} a {show.heavyWord}, {show.money((figures.perKgMilli * pantry.barG) / 1000)}{' '}
            of it in a bar of {show.pieceMass(pantry.barG * 1000)}
            {figures.pricelessPct > 0.1 && (
              <strong> · {figures.pricelessPct.toFixed(0)}&nbsp;% of it has no price yet</strong>
            )}
          </dd>
          <dt className="text-soft">Bars</dt>
          <dd>
            {bars} of {show.pieceMass(pantry.barG * 1000)}, 2 % left in machines taken off
          </dd>
          {needs.map(({ row, needs: of }) => (
            <NeedsRow key={row.id} row={row} of={of} />
          ))}
          {missing.map(({ row, grams }) => (
            <div key={row.id} className="contents">
              <dt className="text-soft">Missing</dt>
              <dd>
                <strong>{show.mass(grams * 1000)}</strong> of {row.name}; {show.mass(row.stockG * 1000)} are here
              </dd>
            </div>
          ))}
        </dl>
      </Section>
      <Thickness pantry={pantry} flow={figures.flow} solids={figures.solids} milk={figures.milkPct > 5} />
      {machine && <CarriedOver machine={machine} own={allergens.map(({ allergen }) => allergen)} />}
      {(cautions.length > 0 || assumed.length > 0) && (
        <Section title="Mind">
          <div className="grid gap-3">
            {cautions.map((text) => (
              <Caution key={text}>{text}</Caution>
            ))}
            {assumed.length > 0 && (
              <p className="text-sm text-soft">
                As usual, not measured: {assumed.map(({ ingredient }) => ingredient.name).join(', ')}. Your own analysis
                replaces it, under Ingredients.
              </p>
            )}
          </div>
        </Section>
      )}
    </>
  );
}

/** What the stones saw since they were last cleaned of allergens, and what is in this recipe for those that come after. */
function CarriedOver({ machine, own }: { machine: { id: string; name: string }; own: readonly string[] }) {
  const show = useShow();
  const seen = useApi(`/api/workshop/machines/${machine.id}/allergens`).data?.carries;
  const foreign = (seen ?? []).filter(({ allergen }) => !own.includes(allergen));
  if (seen === undefined || (foreign.length === 0 && own.length === 0)) return null;
  return (
    <Section title="Shared stones">
      {foreign.length > 0 && (
        <p className="rounded-md bg-ripe-wash px-4 py-2 text-sm font-semibold">
          {machine.name} may carry over{' '}
          {foreign.map(({ allergen, code, at }) => `${allergen} from ${code}, ${show.day(at)}`).join('; ')}: no cleaning
          of allergens is recorded since. It is not free of it.
        </p>
      )}
      {own.length > 0 && (
        <p className="mt-1 text-sm">
          Leaves {own.join(', ')} on {machine.name} for what comes after, until a cleaning of allergens is recorded.
        </p>
      )}
    </Section>
  );
}

function NeedsRow({ row, of }: { row: PantryRow; of: ReturnType<typeof needsOf> }) {
  const sacks = whichSacks(of.green.mean, row.lot?.sacks ?? []);
  const show = useShow();
  return (
    <>
      <dt className="text-soft">Beans</dt>
      <dd>
        {spread(of.green, (grams) => show.mass(grams * 1000))} of {row.name.replace(/^Nibs /, '')} for the{' '}
        {show.mass(of.nibsG * 1000)} of nibs that are still to be made: {spread(of.loads, String)} roast{' '}
        {of.loads.high === 1 ? 'load' : 'loads'}
        {of.sacks && `, ${spread(of.sacks, String)} ${of.sacks.high === 1 ? 'sack' : 'sacks'}`}
        {sacks.length > 0 && ` (number ${sacks.map(({ no, open }) => `${no}${open ? ', open' : ''}`).join('; ')})`}.
        Eight in ten, by your own yields.
      </dd>
    </>
  );
}

/** Thickness against the workshop's own batches of the kind: a comparison, no viscometer. */
function Thickness({
  pantry,
  flow,
  solids,
  milk,
}: {
  pantry: PantryView;
  flow: number | null;
  solids: number;
  milk: boolean;
}) {
  const past = pantry.pastFlow.filter((row) => (row.kind === 'milk') === milk);
  if (flow === null)
    return (
      <Section title="Thickness">
        <p className="text-sm">
          {(100 * solids).toFixed(0)}&nbsp;% solids by volume: <strong>it would not flow</strong>. More fat, or less
          sugar.
        </p>
      </Section>
    );
  const among = placeAmong(flow, past);
  const place = (value: number): string =>
    among === null
      ? '0'
      : `${Math.max(0, Math.min(100, (100 * (value - among.thinnest)) / Math.max(among.thickest - among.thinnest, 0.1)))}%`;
  return (
    <Section title="Thickness" aside={`${flow.toFixed(1)} × its fat alone`}>
      {among === null ? (
        <p className="text-sm text-soft">Too few batches of this kind yet to say whether that is thick for you.</p>
      ) : (
        <>
          <p className="text-sm">
            {among.thinner === 0
              ? `Thinner than all of your ${past.length} ${milk ? 'milk' : 'dark'} batches`
              : among.thinner === past.length
                ? `Thicker than all of your ${past.length} ${milk ? 'milk' : 'dark'} batches`
                : `Thicker than ${among.thinner} of your ${past.length} ${milk ? 'milk' : 'dark'} batches`}
            ; nearest {among.nearest.code} {among.nearest.name}.
          </p>
          <div aria-hidden className="relative mt-2 h-6">
            <div className="absolute inset-x-0 top-2.5 h-1 rounded-full bg-rule" />
            {past.map((row) => (
              <span
                key={row.code}
                className="absolute top-1.5 h-3 w-0.5 bg-soft opacity-50"
                style={{ left: place(row.flow) }}
              />
            ))}
            <span
              className="absolute top-0 size-5 -translate-x-1/2 rounded-full border-2 border-ink bg-ripe"
              style={{ left: place(flow) }}
            />
          </div>
          <p className="flex justify-between text-sm text-soft">
            <span>thinnest {among.thinnest.toFixed(1)}</span>
            <span>thickest {among.thickest.toFixed(1)}</span>
          </p>
        </>
      )}
      <p className="mt-1 text-sm text-soft">
        Solids by volume {(100 * solids).toFixed(0)}&nbsp;%. A comparison with your own, no viscometer.
      </p>
    </Section>
  );
}
