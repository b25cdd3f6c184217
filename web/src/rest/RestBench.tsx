import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { RestShelf } from '@wunsch/core/api/grind';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { useNow } from '../app/DueLine';
import { StepForm } from '../entry/StepForm';
import { useApi } from '../parts/api';
import { Marks } from '../parts/marks';
import { Code, Empty, Section } from '../parts/pieces';
import { Benefit } from './Benefit';
import { Shelved } from './Shelved';
import { span, useHere, useShow } from '../parts/workshop';

const DAY_MS = 86_400_000;

/** Blocks on the shelf by age; the ripe ones first. */
export function RestBench({ view }: { view: BenchView }) {
  const { view: workshop } = useHere();
  const show = useShow();
  const now = useNow();
  const [query] = useSearchParams();
  const [open, setOpen] = useState<string | null>(null);
  const shelf = useApi<RestShelf>('/api/rest/shelf').data?.batches ?? [];
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
          const [first] = blocks;
          const since = first?.since ?? now;
          const shelved = shelf.find(({ batchId }) => batchId === first?.batchId);
          const until = shelved?.restUntil ?? since + days * DAY_MS;
          const age = (now - since) / DAY_MS;
          const ripe = now >= until;
          const scores = shelved?.tastings ?? [];
          return (
            <li key={name} className="py-3">
              <div className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 gap-y-1 sm:grid-cols-[minmax(0,1fr)_14rem_auto_auto]">
                <span>
                  <span className="block text-lg">{name}</span>
                  <span className="text-sm text-soft">
                    {blocks.map((block) => (
                      <span key={block.id}>
                        <Code code={block.code} kind="block" /> {show.mass(block.massMg)}{' '}
                      </span>
                    ))}
                  </span>
                  {scores.length > 0 && (
                    <span className="block text-sm text-soft">
                      Tasted{' '}
                      {scores.map(({ restedDays, score }) => `${score} at ${restedDays.toFixed(0)} d`).join(', ')}
                    </span>
                  )}
                  {first && <Marks marks={first.marks} allergens={first.allergens} />}
                </span>
                <span className="hidden sm:block">
                  <span className="block h-2 overflow-hidden rounded-full bg-sunk">
                    <span
                      className={`block h-full ${ripe ? 'bg-leaf' : 'bg-ripe'}`}
                      style={{ width: `${Math.min(100, (100 * (now - since)) / Math.max(until - since, 1))}%` }}
                    />
                  </span>
                  <span className="text-sm text-soft">
                    {ripe ? 'has rested' : `${span(until - now)} to go`}
                    {shelved?.restUntil == null ? `, usual ${days} days` : `, meant until ${show.day(until)}`}
                  </span>
                </span>
                <span className="figure w-16 text-right text-2xl">{Math.floor(age)} d</span>
                {shelved && (
                  <button
                    type="button"
                    className="button col-span-2 sm:col-span-1"
                    aria-expanded={open === shelved.batchId}
                    onClick={() => setOpen(open === shelved.batchId ? null : shelved.batchId)}
                  >
                    {open === shelved.batchId ? 'Close' : 'Taste or plan'}
                  </button>
                )}
              </div>
              {shelved && open === shelved.batchId && <Shelved batch={shelved} since={since} />}
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
