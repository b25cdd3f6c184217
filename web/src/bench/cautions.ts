import type { BenchView } from '@wunsch/core/api/types';
import type { Route } from '@wunsch/core/work/stations';
import type { CautionWords, Screen } from '../parts/screen';

/** Cautions for what is at a station now, by the routes that it takes. @param words what the station says of such ways */
export function routeCautions(
  { waiting, grinds }: BenchView,
  routes: readonly Route[],
  words: Pick<Screen, 'unroasted' | 'nibRoast'>,
): CautionWords[] {
  const here = new Set([...waiting.map(({ routeId }) => routeId), ...grinds.map(({ batch }) => batch.routeId)]);
  const taken = routes.filter(({ id }) => here.has(id));
  const unroasted = taken.some(({ stations }) => stations.includes('winnow') && !stations.includes('roast'));
  const nib = taken.some(({ stations }) => {
    const [winnow, roast] = [stations.indexOf('winnow'), stations.indexOf('roast')];
    return winnow >= 0 && roast > winnow;
  });
  return [...(unroasted ? [words.unroasted] : []), ...(nib ? [words.nibRoast] : [])].filter(
    (text) => text !== undefined,
  );
}
