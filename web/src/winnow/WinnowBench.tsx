import type { BenchView } from '@wunsch/core/api/types';
import { WorkBench, type StationExtras } from '../entry/WorkBench';
import { extrasCommand, extrasProblem } from './extras';
import { HuskPanel } from './HuskPanel';
import { WinnowExtras } from './WinnowExtras';
import { WINNOW_WORK } from './work';

const EXTRAS: StationExtras = {
  below: ({ fields, setField, codes, inMg }) => (
    <WinnowExtras fields={fields} setField={setField} code={codes[0] ?? null} inMg={inMg} />
  ),
  command: ({ fields }) => extrasCommand(fields),
  problem: ({ fields }) => extrasProblem(fields),
};

/** Crack and winnow: weights, method and dials, passes, samples, what they say; and the husk. */
export function WinnowBench({ view }: { view: BenchView }) {
  return (
    <>
      <WorkBench view={view} station={WINNOW_WORK} extras={EXTRAS} />
      <HuskPanel />
    </>
  );
}
