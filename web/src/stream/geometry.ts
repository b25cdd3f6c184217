/** A column of the floor's stream: how thick it stands, and how thick it flowed on in the last week. */
export interface Pool {
  standingMg: number;
  passedMg: number;
}

export interface Shape {
  /** Closed outline of the whole band. */
  outline: string;
  /** Half thickness of each pool as drawn. */
  halves: number[];
  /** Columns thicker than the sheet: drawn broken, not to scale. */
  broken: boolean[];
  /** Milligrams per unit of full thickness. */
  mgPerUnit: number;
}

/** What passed is given for a week and drawn for a mean day of it. */
const DAYS = 7;

/** The thinnest line that still shows a path. */
const HAIR = 1.1;

/**
 * Draws a band whose thickness is grams: pools where goods stand, necks where they passed.
 *
 * The scale is set by the second-thickest pool, so that one full store room does not flatten the rest;
 * whatever is thicker than the sheet is drawn at its edge and marked as broken.
 *
 * @param width of one column; @param half largest half thickness
 */
export function floorShape(pools: readonly Pool[], width: number, half: number): Shape {
  const sizes = pools.map(({ standingMg }) => standingMg).sort((a, b) => b - a);
  const necks = Math.max(0, ...pools.map(({ passedMg }) => passedMg / DAYS));
  const measure = Math.max(sizes[1] ?? 0, necks * 0.6, (sizes[0] ?? 0) * 0.12, 1);
  const mgPerUnit = measure / (2 * half * 0.86);
  const clamp = (mg: number): number => Math.min(half, Math.max(mg > 0 ? 2.5 : HAIR, mg / mgPerUnit / 2));
  const halves = pools.map(({ standingMg }) => clamp(standingMg));
  const through = pools.map(({ passedMg }) => Math.min(half * 0.7, Math.max(HAIR, passedMg / DAYS / mgPerUnit / 2)));
  const broken = pools.map(({ standingMg }) => standingMg / mgPerUnit / 2 > half * 1.02);
  const top: string[] = [];
  const bottom: string[] = [];
  const points: [number, number][] = [[0, halves[0] ?? HAIR]];
  halves.forEach((h, i) => {
    const left = i * width;
    points.push([left + width * 0.22, h], [left + width * 0.78, h]);
    if (i < halves.length - 1) points.push([left + width, through[i] ?? HAIR]);
  });
  points.push([halves.length * width, halves.at(-1) ?? HAIR]);
  points.forEach(([x, h], i) => {
    const previous = points[i - 1];
    if (!previous) {
      top.push(`M${x},${-h}`);
      return;
    }
    const middle = (previous[0] + x) / 2;
    top.push(`C${middle},${-previous[1]} ${middle},${-h} ${x},${-h}`);
  });
  for (let i = points.length - 1; i > 0; i -= 1) {
    const here = points[i];
    const before = points[i - 1];
    if (!here || !before) continue;
    if (i === points.length - 1) bottom.push(`L${here[0]},${here[1]}`);
    const middle = (here[0] + before[0]) / 2;
    bottom.push(`C${middle},${here[1]} ${middle},${before[1]} ${before[0]},${before[1]}`);
  }
  return { outline: `${top.join('')}${bottom.join('')}Z`, halves, broken, mgPerUnit };
}

export interface FlowColumn {
  inMg: number;
  joinedMg: number;
  goodMg: number;
  lossMg: number;
}

export interface FlowShape {
  /** Main band, one closed path a column. */
  bands: string[];
  /** Losses falling away, one tapering tongue a column (empty where nothing fell). */
  tongues: string[];
  /** Ingredients joining from above. */
  joins: string[];
  unitsPerMg: number;
}

/**
 * Draws a batch: a band hanging from one line, thick as its grams; losses bend away below, what joins
 * comes from above.
 *
 * @param width of a column; @param height of the thickest band; @param drop how far losses fall
 */
export function flowShape(columns: readonly FlowColumn[], width: number, height: number, drop: number): FlowShape {
  const most = Math.max(1, ...columns.map(({ inMg }) => inMg));
  const unitsPerMg = height / most;
  const at = (mg: number): number => Math.max(mg > 0 ? 1.2 : 0, mg * unitsPerMg);
  const bands: string[] = [];
  const tongues: string[] = [];
  const joins: string[] = [];
  columns.forEach(({ inMg, joinedMg, goodMg, lossMg }, i) => {
    const left = i * width;
    const right = left + width;
    const start = at(inMg - joinedMg);
    const full = at(inMg);
    const end = at(goodMg);
    const a = left + width * 0.3;
    const b = left + width * 0.55;
    bands.push(
      `M${left - 0.6},0 L${right + 0.6},0 L${right + 0.6},${end} L${b},${end} C${b - width * 0.1},${end} ${b - width * 0.1},${full} ${a + width * 0.06},${full} ` +
        `C${a},${full} ${a},${start} ${a - width * 0.1},${start} L${left - 0.6},${start} Z`,
    );
    const thick = at(lossMg);
    const x = left + width * 0.36;
    tongues.push(
      lossMg <= 0
        ? ''
        : `M${x},${full - thick} C${x + width * 0.22},${full - thick} ${x + width * 0.2},${full + drop * 0.3} ${x + width * 0.22},${full + drop} ` +
            `L${x + width * 0.22 - Math.max(2, Math.min(thick, width * 0.2))},${full + drop} C${x + width * 0.06},${full + drop * 0.4} ${x + width * 0.04},${full} ${x},${full} Z`,
    );
    const joined = at(joinedMg);
    joins.push(
      joinedMg <= 0
        ? ''
        : `M${left + width * 0.06},${-drop * 0.55} L${left + width * 0.06 + joined * 0.7},${-drop * 0.55} C${left + width * 0.1 + joined * 0.7},${-drop * 0.2} ${b},0 ${b},0 ` +
            `L${a - width * 0.08},0 C${left + width * 0.12},0 ${left + width * 0.06},${-drop * 0.3} ${left + width * 0.06},${-drop * 0.55}Z`,
    );
  });
  return { bands, tongues, joins, unitsPerMg };
}
