import { useState } from 'react';
import type { HoldingView } from '@wunsch/core/api/types';
import { machinesAt } from '@wunsch/core/workshop/machines';
import { send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { KIND_NAMES, Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { SortFindings } from './SortFindings';

interface Choice {
  holdingId: string | null;
  sacks: number[];
  kg: string;
}

const FIRST = 6;

/** Take a sack, weigh it in, begin: the oldest lot first. */
export function SortStart({
  candidates,
  onStarted,
}: {
  candidates: readonly HoldingView[];
  onStarted: (workId: string) => void;
}) {
  const show = useShow();
  const draft = useDraft<Choice>('sort.start', () => ({ holdingId: null, sacks: [], kg: '' }));
  const [all, setAll] = useState(false);
  const chosen = candidates.find(({ id }) => id === draft.value.holdingId) ?? null;
  const shown = all ? candidates : candidates.filter((row, index) => index < FIRST || row.id === chosen?.id);
  return (
    <div>
      <fieldset>
        <legend className="label mb-2">Take from, the oldest first</legend>
        <div className="grid gap-2 sm:grid-cols-2">
          {shown.map((row) => (
            <button
              key={row.id}
              type="button"
              aria-pressed={row.id === chosen?.id}
              onClick={() => draft.set(() => ({ holdingId: row.id, sacks: [], kg: '' }))}
              className={`flex min-h-[56px] items-center gap-3 rounded-lg px-3 py-1.5 text-left ${row.id === chosen?.id ? 'bg-ink text-on-ink' : 'bg-sheet hover:bg-sunk'}`}
            >
              <span className="code text-lg">{row.code}</span>
              <span className="min-w-0 flex-1 text-sm leading-tight">
                <span className="block truncate">{row.name}</span>
                <span className={`block truncate ${row.id === chosen?.id ? 'opacity-80' : 'text-soft'}`}>
                  {KIND_NAMES[row.kind]}, {show.day(row.since)}
                </span>
              </span>
              <span className="figure text-lg whitespace-nowrap">{show.mass(row.freeMg)}</span>
            </button>
          ))}
        </div>
        {candidates.length > shown.length && (
          <button type="button" className="button button-quiet mt-1" onClick={() => setAll(true)}>
            {candidates.length - shown.length} more
          </button>
        )}
      </fieldset>
      {chosen && <WeighIn key={chosen.id} holding={chosen} draft={draft} onStarted={onStarted} />}
    </div>
  );
}

function WeighIn({
  holding,
  draft,
  onStarted,
}: {
  holding: HoldingView;
  draft: ReturnType<typeof useDraft<Choice>>;
  onStarted: (workId: string) => void;
}) {
  const show = useShow();
  const { view, personId } = useHere();
  const { busy, error, run, fail } = useSave();
  const lot = useApi(holding.kind === 'lot' ? `/api/beans/lots/${encodeURIComponent(holding.code)}` : null);
  const { value } = draft;
  const sacks = (lot.data?.sacks ?? []).filter(({ state }) => state !== 'empty');
  const fromSacks = sacks.filter(({ no }) => value.sacks.includes(no)).reduce((sum, { leftG }) => sum + leftG, 0);
  const usualG = Math.min(holding.freeMg / 1000, fromSacks > 0 ? fromSacks : holding.freeMg / 1000);
  const [machine, ...others] = machinesAt(view.machines, 'sort');
  const begin = (): void => {
    const typed = value.kg.trim() === '' ? usualG : readNumber(value.kg);
    const massG = value.kg.trim() === '' || typed === null ? typed : show.gramsFromHeavy(typed);
    if (personId === null) return fail(NOBODY);
    if (massG === null || massG <= 0) return fail('Weigh what goes on the table.');
    void run(async () => {
      const { data } = await send(
        'POST',
        '/api/ledger/works',
        {
          station: 'sort',
          sources: [{ holdingId: holding.id, massG }],
          machineId: others.length === 0 ? (machine?.id ?? null) : null,
          personId,
          dueAt: null,
          note: '',
          sacks: value.sacks,
        },
        draft.key,
      );
      draft.clear();
      onStarted(data.id);
    });
  };
  const toggle = (no: number): void =>
    draft.set((before) => ({
      ...before,
      sacks: before.sacks.includes(no)
        ? before.sacks.filter((row) => row !== no)
        : [...before.sacks, no].sort((a, b) => a - b),
    }));
  return (
    <div className="mt-6">
      {sacks.length > 0 && (
        <fieldset className="mb-4">
          <legend className="label mb-1">Which sack</legend>
          <div className="flex flex-wrap gap-2">
            {sacks.map((sack, index) => (
              <button
                key={sack.no}
                type="button"
                className="chip"
                aria-pressed={value.sacks.includes(sack.no)}
                onClick={() => toggle(sack.no)}
              >
                {sack.no} · {show.mass(sack.leftG * 1000)}
                {sack.place !== '' && `, ${sack.place}`}
                {index === 0 && ' (next)'}
              </button>
            ))}
          </div>
        </fieldset>
      )}
      <div className="flex flex-wrap items-end gap-4">
        <NumberBox
          label="On the scale, before sorting"
          unit={show.heavy}
          value={value.kg}
          onChange={(kg) => draft.set((before) => ({ ...before, kg }))}
          onEnter={begin}
          placeholder={show.heavyFromGrams(usualG).toFixed(2)}
          className="w-64"
        />
        <button type="button" className="button button-main mb-1 min-w-44 text-lg" disabled={busy} onClick={begin}>
          {busy ? 'Saving …' : 'Begin sorting'}
        </button>
      </div>
      <Refusal error={error} />
      {lot.data && (
        <div className="mt-6">
          <SortFindings view={lot.data.sort} />
        </div>
      )}
    </div>
  );
}
