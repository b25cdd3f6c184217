import { useState } from 'react';
import type { BeanRecordView } from '@wunsch/core/api/beans';
import { beansIn } from '@wunsch/core/beans/cut-test';
import type { BeanRecordValue } from '@wunsch/core/beans/records';
import { ACTION_NAMES } from '@wunsch/core/beans/words';
import { send } from '../parts/api';
import { Refusal } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

type Show = ReturnType<typeof useShow>;

/** One record in a line. */
function words(value: BeanRecordValue, show: Show): string {
  switch (value.kind) {
    case 'papers':
      return 'Papers written';
    case 'sacks':
      return `${value.sacks.length} sacks weighed`;
    case 'inspection':
      return `Inspected${value.cut ? `, ${beansIn(value.cut.tally)} beans cut` : ''}`;
    case 'decision':
      return `${ACTION_NAMES[value.action]}${value.proposed !== null && value.proposed !== value.action ? ` (proposed: ${ACTION_NAMES[value.proposed].toLowerCase()})` : ''}${value.word === '' ? '' : `: ${value.word}`}`;
    case 'hold':
      return `On hold, ${value.method}${value.why === '' ? '' : `: ${value.why}`}`;
    case 'core':
      return `Core ${show.temp(value.tempC)}`;
    case 'release':
      return `Released${value.word === '' ? '' : `: ${value.word}`}`;
    case 'look':
      return `Looked at${value.signs ? ', signs of moth' : ', nothing seen'}${value.note === '' ? '' : `: ${value.note}`}`;
    case 'harvest':
      return `Opened${value.pods === null ? '' : `, ${value.pods} pods`}`;
    case 'ferment':
      return [
        'Heap',
        value.coreC === null ? '' : show.temp(value.coreC),
        value.turned ? 'turned' : '',
        value.smell,
        value.cut > 0 ? `${value.cutBrown} of ${value.cut} brown` : '',
      ]
        .filter((text) => text !== '')
        .join(', ');
    case 'drying':
      return [
        'Drying',
        value.moisturePct === null ? '' : `${value.moisturePct}\u00a0%`,
        value.massG === null ? '' : show.mass(value.massG * 1000),
      ]
        .filter((text) => text !== '')
        .join(', ');
    case 'trap':
      return `Trap ${value.trap}: ${value.moths} moths`;
    case 'nib-fat':
      return `Fat of its nibs ${value.fatPct}\u00a0%${value.how === '' ? '' : `: ${value.how}`}`;
    case 'taken-back':
      return `Took a record back${value.word === '' ? '' : `: ${value.word}`}`;
  }
}

const FIRST = 10;

/** Everything written down about a lot, newest first; what is wrong is taken back, never erased. */
export function RecordLog({ records }: { records: readonly BeanRecordView[] }) {
  const show = useShow();
  const { personId } = useHere();
  const { busy, error, run } = useSave();
  const [all, setAll] = useState(false);
  if (records.length === 0) return <p className="text-sm text-soft">Nothing written down yet.</p>;
  const takeBack = (row: BeanRecordView): void => {
    if (personId === null) return;
    const word = window.prompt(`Take back “${words(row.value, show)}”? It stays readable but counts no more. Why?`);
    if (word !== null) void run(() => send('POST', `/api/beans/records/${row.id}/take-back`, { personId, word }));
  };
  return (
    <>
      <ol className="rows text-sm">
        {(all ? records : records.slice(0, FIRST)).map((row) => (
          <li key={row.id} className="flex items-start justify-between gap-2 py-1.5">
            <span className={row.takenBack ? 'text-soft line-through' : ''}>
              {words(row.value, show)}
              <span className="block text-soft">
                {row.person}, {show.moment(row.at)}
              </span>
            </span>
            {!row.takenBack && row.value.kind !== 'taken-back' && (
              <button
                type="button"
                className="link min-h-8 flex-none text-soft"
                disabled={busy || personId === null}
                onClick={() => takeBack(row)}
              >
                take back
              </button>
            )}
          </li>
        ))}
      </ol>
      {records.length > FIRST && !all && (
        <button type="button" className="button button-quiet" onClick={() => setAll(true)}>
          All {records.length}
        </button>
      )}
      <Refusal error={error} />
    </>
  );
}
