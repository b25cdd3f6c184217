/*
 * A model for learning: cocoa butter in a stirred bowl as liquid, form IV and form V. It shows what the textbooks tell
 * (Wille and Lutton 1966 for the melting points; Beckett, Industrial Chocolate Manufacture, ch. 13): nuclei come by cold
 * and by stirring, IV turns to V while it is worked, IV melts out at 27.5 °C and V at 33.8 °C. Its rates are chosen to
 * show that in the minutes that a real bowl takes; nothing is foretold with it.
 */

/** Melting points, °C. */
export const FORM_IV_C = 27.5;
export const FORM_V_C = 33.8;

export interface Crystal {
  tempC: number;
  /** Shares of the fat that are crystal; the rest is liquid. */
  iv: number;
  v: number;
}

/** What is done to a bowl for a while. */
export interface Handling {
  /** What is around it, °C: water bath, marble, room. */
  aroundC: number;
  /** How fast it follows: minutes in which it comes two thirds of the way. */
  tauMin: number;
  /** 0 nobody stirs, 1 steadily, 2 hard. */
  shear: number;
  /** Share of the mass that is fat. */
  fatShare: number;
  /** °C by which milk, nut or oat fat lowers both melting points; left out, none. */
  lowerC?: number;
}

/** A share a minute, with the degrees below a melting point. */
const COLD_IV = 5e-7;
const STIRRED_IV = 7e-4;
const STIRRED_V = 2.2e-4;
const V_BELOW_C = 29;
const GROWS_IV = 0.45;
const GROWS_V = 0.15;
/** Stirring brings liquid to the crystals. */
const STIRRED_GROWTH = 0.6;
const TURNS = 0.09;
const MELTS_IV = 0.6;
const MELTS_V = 0.55;
/** J/g of crystal, and J/gK of the mass. */
const LATENT = 150;
const HEAT = 1.7;

interface Rates {
  tempC: number;
  iv: number;
  v: number;
}

function ratesOf(bowl: Crystal, { aroundC, tauMin, shear, fatShare, lowerC = 0 }: Handling): Rates {
  const { iv, v } = bowl;
  // As far from its melting points as pure cocoa butter would be.
  const tempC = bowl.tempC + lowerC;
  const liquid = Math.max(0, 1 - iv - v);
  const underIv = Math.max(0, FORM_IV_C - tempC);
  const underV = Math.max(0, FORM_V_C - tempC);
  const stirs = 1 + STIRRED_GROWTH * shear;
  const bornIv = (COLD_IV * underIv ** 2 + STIRRED_IV * shear * underIv ** 1.5) * liquid;
  const bornV = STIRRED_V * shear * Math.max(0, V_BELOW_C - tempC) ** 1.5 * liquid;
  const growsIv = GROWS_IV * iv * liquid * (underIv / 10) * stirs;
  const growsV = GROWS_V * v * liquid * (underV / 10) * stirs;
  // Worked near its melting point, IV turns into V.
  const turns = tempC < FORM_IV_C + 1 ? TURNS * shear * iv : 0.35 * MELTS_IV * shear * iv;
  const meltsIv = MELTS_IV * iv * Math.max(0, tempC - FORM_IV_C);
  const meltsV = MELTS_V * v * Math.max(0, tempC - FORM_V_C);
  const dIv = bornIv + growsIv - turns - meltsIv;
  const dV = bornV + growsV + turns - meltsV;
  return {
    tempC: (aroundC - bowl.tempC) / tauMin + (LATENT * fatShare * (dIv + dV)) / HEAT,
    iv: dIv,
    v: dV,
  };
}

const along = (from: Crystal, rates: Rates, minutes: number): Crystal => ({
  tempC: from.tempC + minutes * rates.tempC,
  iv: Math.max(0, from.iv + minutes * rates.iv),
  v: Math.max(0, from.v + minutes * rates.v),
});

/** One step of the classical Runge–Kutta method of fourth order. */
function step(from: Crystal, handling: Handling, minutes: number): Crystal {
  const a = ratesOf(from, handling);
  const b = ratesOf(along(from, a, minutes / 2), handling);
  const c = ratesOf(along(from, b, minutes / 2), handling);
  const d = ratesOf(along(from, c, minutes), handling);
  const mean = (key: keyof Rates): number => (a[key] + 2 * b[key] + 2 * c[key] + d[key]) / 6;
  const next = along(from, { tempC: mean('tempC'), iv: mean('iv'), v: mean('v') }, minutes);
  const all = next.iv + next.v;
  return all > 1 ? { ...next, iv: next.iv / all, v: next.v / all } : next;
}

/** Minutes a step: halved, nothing moves by more than a thousandth. */
export const STEP_MIN = 0.05;

/** What becomes of a bowl that is handled so for some minutes. */
export function handle(from: Crystal, handling: Handling, minutes: number, stepMin = STEP_MIN): Crystal {
  let now = from;
  for (let left = minutes; left > 1e-9; left -= stepMin) now = step(now, handling, Math.min(stepMin, left));
  return now;
}

/** What becomes of the crystal of a bowl whose temperature is known: that of a logged curve. */
export function handleAt(
  from: Crystal,
  tempAt: (minute: number) => number,
  handling: Omit<Handling, 'aroundC' | 'tauMin'>,
  startMin: number,
  minutes: number,
): Crystal {
  const still = { ...handling, aroundC: 0, tauMin: 1 };
  let now = from;
  let at = startMin;
  for (let left = minutes; left > 1e-9; left -= STEP_MIN) {
    const h = Math.min(STEP_MIN, left);
    const bowl = (iv: number, v: number, minute: number): Crystal => ({ tempC: tempAt(minute), iv, v });
    // Midpoint rule: the temperature is given, and changes little in three seconds.
    const a = ratesOf(bowl(now.iv, now.v, at), still);
    const b = ratesOf(bowl(now.iv + (h / 2) * a.iv, now.v + (h / 2) * a.v, at + h / 2), still);
    const [iv, v] = [Math.max(0, now.iv + h * b.iv), Math.max(0, now.v + h * b.v)];
    const all = Math.max(1, iv + v);
    at += h;
    now = bowl(iv / all, v / all, at);
  }
  return now;
}

/** Old crystal that a melted-out bowl is free of; what is left of it, by its warmest and how long. */
export const FRESH: Crystal = { tempC: 20, iv: 0.05, v: 0.75 };

/** What brings form V in: chocolate that is in temper, or butter held at 33.5 °C until half of it is crystal. */
export type SeedKind = 'chocolate' | 'silk';
const CRYSTAL_OF: Readonly<Record<SeedKind, number>> = { chocolate: 0.85, silk: 0.45 };

/** Puts seed or silk in. @param share of the whole that is added; @param seedC its own temperature */
export function addSeed(bowl: Crystal, kind: SeedKind, share: number, seedC: number, fatShare: number): Crystal {
  const keep = 1 - share;
  // Silk is fat from end to end.
  const fat = kind === 'silk' ? share : share * fatShare;
  const part = fat / (fat + keep * fatShare);
  return {
    tempC: (bowl.tempC * keep * HEAT + seedC * share * HEAT) / HEAT,
    iv: bowl.iv * (1 - part),
    v: bowl.v * (1 - part) + part * CRYSTAL_OF[kind],
  };
}

/** How thick it runs against the same mass without any crystal. */
export const thickness = ({ iv, v }: Crystal): number => Math.min(20, (1 - Math.min(0.95, (iv + v) / 0.16)) ** -1.4);

/** The bar that a bowl would make, 0 to 1 each. */
export interface Bar {
  gloss: number;
  snap: number;
  /** How far it draws back from its mould. */
  release: number;
  streaks: number;
  veil: number;
  /** Share of its crystal that is form V once it is set. */
  shareV: number;
  verdict: 'good' | 'under' | 'untempered' | 'over' | 'too thick';
}

/** Crystal at pouring from which a bowl is thick and its bars dull. */
const OVER = 0.055;
const TOO_THICK = 0.09;
const SET_C = 14;
const SET_MIN = 25;

const between = (value: number, low: number, high: number): number =>
  Math.max(0, Math.min(1, (value - low) / (high - low)));

/** Pours a bowl into moulds and lets it set without stirring. */
export function pour(bowl: Crystal, fatShare: number, lowerC = 0): Bar {
  const set = handle(bowl, { aroundC: SET_C - lowerC, tauMin: 6, shear: 0, fatShare, lowerC }, SET_MIN);
  const all = set.iv + set.v;
  const shareV = all > 0 ? set.v / all : 0;
  const crystal = bowl.iv + bowl.v;
  const good = between(shareV, 0.45, 0.9);
  const full = between(all, 0.35, 0.75);
  const dull = between(crystal, OVER, TOO_THICK);
  return {
    gloss: good * (1 - 0.6 * dull),
    snap: good * (0.4 + 0.6 * full),
    release: good * full * (1 - 0.7 * dull),
    streaks: between(0.85 - shareV, 0, 0.25) * between(shareV, 0.1, 0.4),
    veil: between(0.75 - shareV, 0, 0.5),
    shareV,
    verdict:
      crystal >= TOO_THICK
        ? 'too thick'
        : shareV < 0.5
          ? 'untempered'
          : shareV < 0.8
            ? 'under'
            : crystal >= OVER
              ? 'over'
              : 'good',
  };
}
