import type { BenchView } from '@wunsch/core/api/types';
import { WorkBench } from '../entry/WorkBench';
import { LiveMould } from './LiveMould';
import { MouldList } from './MouldList';

/** What waits to be moulded and what is in its moulds; the moulds themselves. */
export function MouldBench({ view }: { view: BenchView }) {
  return (
    <>
      <WorkBench view={view} follow={(work, entry) => <LiveMould key={work.id} work={work} entry={entry} />} />
      <MouldList />
    </>
  );
}
