import { median } from '../stats/spread';

export interface HoldUpVerdict {
  tone: 'good' | 'watch' | 'quiet';
  sentence: string;
}

/** Pours below which a machine has no usual. */
const FEWEST = 3;
/** So many times its usual is more than a bowl differs by. */
const FAR = 1.7;
const LEAST_G = 30;

/**
 * What stays in a machine after a pour, against what usually stays in that one.
 *
 * @param pastG hold-ups of its earlier pours, g; @param mass how mg are shown
 */
export function judgeHoldUp(
  holdUpG: number,
  pastG: readonly number[],
  machine: string,
  mass: (mg: number) => string,
): HoldUpVerdict {
  if (pastG.length < FEWEST)
    return { tone: 'quiet', sentence: `${machine}: too few pours weighed yet to know what usually stays in it.` };
  const usual = median(pastG);
  const words = `${mass(holdUpG * 1000)} against usually ${mass(usual * 1000)}, ${pastG.length} pours`;
  if (holdUpG > usual * FAR && holdUpG - usual > LEAST_G)
    return { tone: 'watch', sentence: `More than usual stays in ${machine}: ${words}. Scrape while it is warm.` };
  if (holdUpG < usual / FAR && usual - holdUpG > LEAST_G)
    return {
      tone: 'watch',
      sentence: `Less than usual stays in ${machine}: ${words}. Was all of it scraped off and weighed?`,
    };
  return { tone: 'good', sentence: `As usual for ${machine}: ${words}.` };
}
