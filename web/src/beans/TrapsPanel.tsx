import { lazy, Suspense } from 'react';
import type { BeanStoreView } from '@wunsch/core/api/beans';
import { useDraft } from '../parts/draft';
import { useShow } from '../parts/workshop';
import { Box, NumberBox } from '../parts/fields';
import { readNumbers } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { useRecords } from './records';
import { When } from '../parts/dates';

const LineChart = lazy(() => import('../charts/LineChart'));
const YEAR_MS = 365.25 * 86_400_000;

/** Moth traps by the week: against the maker's own past, with last year behind this one. */
export function TrapsPanel({ store }: { store: BeanStoreView }) {
  const { weeks, alarm, names } = store.traps;
  const { write, busy, error, fail } = useRecords(null);
  const show = useShow();
  const draft = useDraft('trap', () => ({ trap: names[0] ?? '', figures: { moths: '', days: '7' }, at: '' }));
  const { trap, figures, at } = draft.value;
  const set = (part: Partial<typeof draft.value>): void => draft.set((before) => ({ ...before, ...part }));
  const { values, wrong } = readNumbers(figures);
  const save = async (): Promise<void> => {
    if (Object.keys(wrong).length > 0) return;
    if (trap.trim() === '' || values.moths === null || values.days === null)
      return fail('Name the trap, count the moths, say how many days it hung.');
    if (await write({ kind: 'trap', trap, moths: values.moths, days: values.days }, draft.key, show.sent(at)))
      draft.clear();
  };
  const recent = weeks.filter(({ from }) => from > store.now - YEAR_MS);
  const before = weeks
    .filter(({ from }) => from <= store.now - YEAR_MS + 14 * 86_400_000)
    .map((week) => ({ x: week.from + YEAR_MS, y: week.rate }));
  return (
    <div>
      <div
        className={`rounded-md px-4 py-3 ${alarm.tone === 'watch' ? 'bg-crimson-wash' : alarm.tone === 'good' ? 'bg-leaf-wash' : 'bg-sunk'}`}
        role={alarm.tone === 'watch' ? 'alert' : undefined}
      >
        <p className="figure text-2xl leading-snug">{alarm.sentence}</p>
        {alarm.todo !== null && <p className="mt-1">{alarm.todo}</p>}
        {alarm.chance !== null && (
          <p className="mt-1 text-sm text-soft">
            Chance of so many if nothing has changed:{' '}
            {alarm.chance < 0.001 ? 'under 0.1 %' : `${(100 * alarm.chance).toFixed(1)} %`}; an alarm is under 1 %.
          </p>
        )}
      </div>
      {recent.length > 2 && (
        <div className="mt-5">
          <Suspense fallback={<div className="h-[220px]" />}>
            <LineChart
              caption="Moths a trap and week; dashes: the same weeks a year before"
              points={recent.map(({ from, rate }) => ({ x: from, y: Math.round(rate * 10) / 10 }))}
              second={before}
              names={['this year', 'the year before']}
              unit=""
              height={220}
              bars
            />
          </Suspense>
        </div>
      )}
      <Section title="Count a trap">
        <div className="grid grid-cols-2 items-end gap-4 sm:grid-cols-[1.2fr_1fr_1fr_1.4fr_auto]">
          <Box label="Trap" value={trap} onChange={(text) => set({ trap: text })} placeholder="by the door" />
          <NumberBox
            label="Moths in it"
            value={figures.moths}
            onChange={(moths) => set({ figures: { ...figures, moths } })}
            onEnter={() => void save()}
            problem={wrong.moths}
          />
          <NumberBox
            label="Days it hung"
            value={figures.days}
            onChange={(days) => set({ figures: { ...figures, days } })}
            onEnter={() => void save()}
            problem={wrong.days}
          />
          <When value={at} onChange={(text) => set({ at: text })} />
          <button type="button" className="button button-main mb-1" disabled={busy} onClick={() => void save()}>
            Save the count
          </button>
        </div>
        <Refusal error={error} />
      </Section>
    </div>
  );
}
