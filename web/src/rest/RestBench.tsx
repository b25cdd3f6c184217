import { useSearchParams } from 'react-router';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { useNow } from '../app/DueLine';
import { StepForm } from '../entry/StepForm';
import { Marks } from '../parts/marks';
import { Code, Empty, Section } from '../parts/pieces';
import { Benefit } from './Benefit';
import { span, useHere, useShow } from '../parts/workshop';

const DAY_MS = 86_400_000;

/** Blocks on the shelf by age; the ripe ones first. */
export function RestBench({ view }: { view: BenchView }) {
  const { view: workshop } = useHere();
  const show = useShow();
  const now = useNow();
  const [query] = useSearchParams();
  const days = workshop.settings.restDays;
  const asked = view.waiting.find(({ code }) => code === query.get('holding'));
  if (view.waiting.length === 0)
    return (
      <Empty title="The shelf is empty.">Blocks poured from the grinder rest here when their route says so.</Empty>
    );
  const byName = new Map<string, HoldingView[]>();
  for (const holding of view.waiting) {
    const key = `${holding.batchCode ?? ''} ${holding.name}`.trim();
    byName.set(key, [...(byName.get(key) ?? []), holding]);
  }
  return (
    <>
      <ul className="rows mb-8">
        {[...byName].map(([name, blocks]) => {
          const age = (now - (blocks[0]?.since ?? now)) / DAY_MS;
          const ripe = age >= days;
          const [first] = blocks;
          return (
            <li
              key={name}
              className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 gap-y-1 py-3 sm:grid-cols-[minmax(0,1fr)_14rem_auto]"
            >
              <span>
                <span className="block text-lg">{name}</span>
                <span className="text-sm text-soft">
                  {blocks.map((block) => (
                    <span key={block.id}>
                      <Code code={block.code} kind="block" /> {show.mass(block.massMg)}{' '}
                    </span>
                  ))}
                </span>
                {first && <Marks marks={first.marks} allergens={first.allergens} />}
              </span>
              <span className="hidden sm:block">
                <span className="block h-2 overflow-hidden rounded-full bg-sunk">
                  <span
                    className={`block h-full ${ripe ? 'bg-leaf' : 'bg-ripe'}`}
                    style={{ width: `${Math.min(100, (100 * age) / Math.max(days, 0.01))}%` }}
                  />
                </span>
                <span className="text-sm text-soft">
                  {ripe ? 'has rested' : `${span((days - age) * DAY_MS)} to go`} of {days} days
                </span>
              </span>
              <span className="figure w-16 text-right text-2xl">{Math.floor(age)} d</span>
            </li>
          );
        })}
      </ul>
      <Section title="Take blocks off the shelf">
        <StepForm
          key={asked?.id ?? 'any'}
          kind="rest"
          station="rest"
          draftId="rest"
          candidates={view.waiting}
          initialPicked={asked ? [asked.id] : []}
          pickTitle="Which blocks"
          path="/api/ledger/steps"
          submit="Take to temper"
          finish={(values, sources) => ({ ...values, sources })}
        />
      </Section>
      <Benefit names={[...new Set(view.waiting.map(({ name }) => name))]} />
    </>
  );
}
