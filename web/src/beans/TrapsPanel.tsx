import { lazy, Suspense } from 'react';
import type { BeanStoreView } from '@wunsch/core/api/beans';
import { trap } from '@wunsch/core/beans/records';
import { useKept } from '../parts/draft';
import { useShow } from '../parts/workshop';
import { Section } from '../parts/pieces';
import { Field } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';
import { useRecords } from './records';
import { When } from '../parts/dates';
import { Overrule } from '../parts/Overrule';

const LineChart = lazy(() => import('../charts/LineChart'));
const YEAR_MS = 365.25 * 86_400_000;

/** Moth traps by the week: against the maker's own past, with last year behind this one. */
export function TrapsPanel({ store }: { store: BeanStoreView }) {
  const { weeks, alarm, names } = store.traps;
  const { enter } = useRecords(null);
  const show = useShow();
  const record = useRecordForm('trap', trap, () => ({ trap: names[0] ?? '', days: 7 }));
  const [at, setAt, forgetAt] = useKept('trap.at', '');
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
            {alarm.chance < 0.001 ? 'under 0.1 %' : `${(100 * alarm.chance).toFixed(1)}\u00a0%`}; an alarm is under 1 %.
          </p>
        )}
        {alarm.tone === 'watch' && <Overrule judged="traps" subject="bean-store" said={alarm.sentence} />}
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
        <RecordSheet
          record={record}
          save={(value, key) => enter(value, key, show.sent(at))}
          done={forgetAt}
          submit="Save the count"
        >
          <div className="grid grid-cols-2 gap-4 sm:grid-cols-[1.2fr_1fr_1fr_1.4fr]">
            <Field at="trap" />
            <Field at="moths" />
            <Field at="days" />
            <When value={at} onChange={setAt} />
          </div>
        </RecordSheet>
      </Section>
    </div>
  );
}
