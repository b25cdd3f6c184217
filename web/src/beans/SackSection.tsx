import { useState } from 'react';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { getJson, send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, Tick } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { NOBODY } from '../parts/save';
import { useRecords } from './records';

/** Sacks on hand by number and place, the look at them, and the weighed net against the book. */
export function SackSection({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const here = lot.sacks.filter(({ state }) => state !== 'empty');
  return (
    <Section
      title="Sacks"
      aside={lot.lookDueAt !== null && lot.leftG > 0 ? `look again ${show.day(lot.lookDueAt)}` : undefined}
    >
      {lot.count && (
        <p className={`mb-2 ${lot.count.shortG > 0 ? 'font-semibold text-crimson' : 'text-soft'}`}>
          {lot.count.sentence}
        </p>
      )}
      <BookNet lot={lot} />
      {lot.sackRows.length === 0 ? (
        <p className="text-soft">Not weighed one by one: {lot.facts.sacks} by the invoice.</p>
      ) : here.length === 0 ? (
        <p className="text-soft">All {lot.sacks.length} are empty.</p>
      ) : (
        <ul className="grid grid-cols-2 gap-2 sm:grid-cols-3 xl:grid-cols-4">
          {here.map((sack) => (
            <li key={sack.no} className="relative overflow-hidden rounded-md bg-sheet px-3 py-2">
              <span
                className="absolute inset-x-0 bottom-0 block bg-leaf-wash"
                style={{ height: `${(100 * sack.leftG) / sack.netG}%` }}
                aria-hidden
              />
              <span className="relative block">
                <span className="flex items-baseline justify-between">
                  <span>sack {sack.no}</span>
                  <span className="figure text-lg">{show.mass(sack.leftG * 1000)}</span>
                </span>
                <span className="flex justify-between text-sm text-soft">
                  <span className="truncate">{sack.place || 'no place'}</span>
                  <span>{sack.state}</span>
                </span>
              </span>
            </li>
          ))}
        </ul>
      )}
      {lot.leftG > 0 && <Look lot={lot} />}
    </Section>
  );
}

/** Grams by which book and scale may differ without a word. */
const SAME_G = 50;

/** The scale's net weight can be taken into the book while nothing has left the lot; the invoice is still what is paid. */
function BookNet({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const { personId } = useHere();
  const { busy, error, run, fail } = useRecords(lot.code);
  const untouched = Math.abs(lot.leftG - lot.receivedG) < 1 && lot.facts.form !== 'wet';
  if (!lot.count || Math.abs(lot.count.netG - lot.receivedG) < SAME_G || !untouched) return null;
  const netG = lot.count.netG;
  const book = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      const { step } = await getJson(`/api/ledger/steps/${lot.receiptId}`);
      const command = {
        ...(step.command as Record<string, unknown>),
        netG,
        invoiceNetG: lot.facts.invoiceNetG ?? lot.receivedG,
      };
      await send('POST', `/api/ledger/steps/${lot.receiptId}/correct`, {
        command,
        personId,
        machineId: null,
        minutes: step.minutes,
        energyKwh: 0,
        at: new Date(step.at).toISOString(),
        reason: 'sacks weighed one by one',
      });
    });
  };
  return (
    <div className="mb-3 rounded-md bg-ripe-wash px-4 py-3">
      <p>
        The book says {show.mass(lot.receivedG * 1000)}, the scale {show.mass(netG * 1000)}. You pay for the invoice;
        the beans that came bear it.
      </p>
      <button type="button" className="button mt-2" disabled={busy} onClick={book}>
        Book the weighed {show.mass(netG * 1000)}
      </button>
      <Refusal error={error} />
    </div>
  );
}

function Look({ lot }: { lot: BeanLotView }) {
  const { write, busy, error } = useRecords(lot.code);
  const draft = useDraft(`look.${lot.code}`, () => ({ signs: false, note: '', place: '' }));
  const [open, setOpen] = useState(draft.touched);
  const { signs, note, place } = draft.value;
  const set = (part: Partial<typeof draft.value>): void => draft.set((before) => ({ ...before, ...part }));
  if (!open) {
    return (
      <button type="button" className="button mt-3" onClick={() => setOpen(true)}>
        I have looked at them
      </button>
    );
  }
  const save = async (): Promise<void> => {
    const moved =
      place.trim() === ''
        ? []
        : lot.sacks.filter(({ state }) => state !== 'empty').map(({ no }) => ({ no, place: place.trim() }));
    if (!(await write({ kind: 'look', signs, note, moved }, draft.key))) return;
    draft.clear();
    setOpen(false);
  };
  return (
    <div className="mt-3 grid gap-3 rounded-md bg-sheet px-4 py-3">
      <Tick checked={signs} onChange={(on) => set({ signs: on })}>
        Webbing, larvae or moths seen
      </Tick>
      {signs && <p className="font-semibold text-crimson">Put the lot on hold, above, and look at its neighbours.</p>}
      <div className="grid gap-3 sm:grid-cols-2">
        <Box label="All moved to (empty: not moved)" value={place} onChange={(text) => set({ place: text })} />
        <Box label="Note" value={note} onChange={(text) => set({ note: text })} />
      </div>
      <Refusal error={error} />
      <div className="flex gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={() => void save()}>
          Looked, save it
        </button>
        <button
          type="button"
          className="button"
          onClick={() => {
            draft.clear();
            setOpen(false);
          }}
        >
          Not now
        </button>
      </div>
    </div>
  );
}
