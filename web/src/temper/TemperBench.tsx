import type { BenchView } from '@wunsch/core/api/types';
import { WorkBench, type StationExtras } from '../entry/WorkBench';
import { Faults } from './Faults';
import { LastPours } from './LastPours';
import { Learned } from './Learned';
import { LivePour, METER, meterOf } from './LivePour';
import { SilkBench } from './SilkBench';
import { WindowsPanel } from './WindowsPanel';
import { TEMPER_WORK } from './work';

/** What a meter said goes with the entry. */
const EXTRAS: StationExtras = {
  below: () => null,
  command: ({ choices }) => ((choices?.[METER] ?? '') === '' ? {} : { meter: meterOf(choices) }),
  problem: () => null,
};

/** What waits to be tempered and what is being poured; silk; how the last pours came out, and what they teach. */
export function TemperBench({ view }: { view: BenchView }) {
  const pours = { ...view, works: view.works.filter(({ silk }) => !silk) };
  const isPouring = pours.works.length > 0;
  return (
    <>
      {!isPouring && <WindowsPanel view={pours} />}
      <WorkBench
        view={pours}
        station={TEMPER_WORK}
        extras={EXTRAS}
        follow={(work, entry) => <LivePour work={work} entry={entry} />}
      />
      {isPouring && (
        <div className="mt-8">
          <WindowsPanel view={pours} />
        </div>
      )}
      <SilkBench view={view} />
      <LastPours steps={view.recent.filter(({ kind, withdrawn }) => kind === 'temper' && !withdrawn).slice(0, 3)} />
      <Learned code={view.waiting[0]?.code ?? view.works[0]?.sources[0]?.code ?? null} />
      <Faults />
    </>
  );
}
