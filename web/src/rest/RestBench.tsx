import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { useNow } from '../app/DueLine';
import { StepForm } from '../entry/StepForm';
import { useApi } from '../parts/api';
import { Marks } from '../parts/marks';
import { Code, Empty } from '../parts/pieces';
import { Benefit } from './Benefit';
import { Shelved } from './Shelved';
import { span, useHere, useShow } from '../parts/workshop';

const DAY_MS = 86_400_000;

/** Blocks on the shelf by age; the ripe ones first. */
export function RestBench({ view }: { view: BenchView }) {
  const { view: workshop } = useHere();
  const show = useShow();
  const now = useNow();
  const [query, setQuery] = useSearchParams();
  const [open, setOpen] = useState<string | null>(null);
  const shelf = useApi('/api/rest/shelf').data?.batches ?? [];
  const days = workshop.settings.restDays;
  const asked = (query.get('holding') ?? '')
    .split(',')
    .flatMap((code) => view.waiting.find((row) => row.code === code) ?? []);
  const taking = asked.length > 0 || query.get('show') === 'take';
  if (view.waiting.length === 0)
    return (
      <Empty title="The shelf is empty.">Blocks poured from the grinder rest here when their route says so.</Empty>
    );
  const byName = new Map<string, HoldingView[]>();
  for (const holding of view.waiting) {
    const key = `${holding.batchCode ?? ''} ${holding.name}`.trim();
    byName.set(key, [...(byName.get(key) ?? []), holding]);
  }
  const tab = (value: boolean, label: string) => (
    <button
      type="button"
      className="chip"
      aria-pressed={taking === value}
      onClick={() => setQuery(value ? { show: 'take' } : {}, { replace: true })}
    >
      {label}
    </button>
  );
  const tabs = (
    <div className="mb-4 flex flex-wrap gap-2" role="group" aria-label="What to do">
      {tab(false, 'On the shelf')}
      {tab(true, 'Take blocks off the shelf')}
    </div>
  );
  if (taking)
    return (
      <>
        {tabs}
        <StepForm
          key={asked.map(({ id }) => id).join() || 'any'}
          kind="rest"
          station="rest"
          draftId="rest"
          candidates={view.waiting}
          initialPicked={asked.map(({ id }) => id)}
          pickTitle="Which blocks"
          shownFirst={6}
          submit="Take to temper"
          finish={(values, sources) => ({ ...values, sources })}
        />
      </>
    );
  return (
    <>
      {tabs}
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
                <span className="col-span-2 flex gap-2 sm:col-span-1">
                  <button
                    type="button"
                    className={`button ${ripe ? 'button-main' : ''}`}
                    aria-label={`Take ${name} off`}
                    onClick={() => setQuery({ holding: blocks.map(({ code }) => code).join() }, { replace: true })}
                  >
                    Take off
                  </button>
                  {shelved && (
                    <button
                      type="button"
                      className="button"
                      aria-expanded={open === shelved.batchId}
                      onClick={() => setOpen(open === shelved.batchId ? null : shelved.batchId)}
                    >
                      {open === shelved.batchId ? 'Close' : 'Taste or plan'}
                    </button>
                  )}
                </span>
              </div>
              {shelved && open === shelved.batchId && <Shelved batch={shelved} since={since} />}
            </li>
          );
        })}
      </ul>
      <Benefit names={[...new Set(view.waiting.map(({ name }) => name))]} />
    </>
  );
}
