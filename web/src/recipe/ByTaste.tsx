import { useState } from 'react';
import type { BowlView, PantryView } from '@wunsch/core/api/recipe';
import { drawFrom } from '@wunsch/core/recipe/stock';
import { GatePanel, gatesIn, type Answer } from '../entry/GatePanel';
import { send } from '../parts/api';
import { useKept } from '../parts/draft';
import { Box } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { Quantity } from './Quantity';
import { SelectBox } from '../parts/choice';

/** Sweetened or spiced by taste: add a little, say how it is, again, until it is done. Each goes straight into the bowl. */
export function ByTaste({ view, pantry }: { view: BowlView; pantry: PantryView }) {
  const here = useHere();
  const show = useShow();
  const offered = pantry.rows.filter(({ stockG, role }) => stockG > 0 && (role === 'sugar' || role === 'other'));
  const [id, setId] = useState(offered[0]?.id ?? '');
  const [grams, setGrams] = useState<number | null>(null);
  const [word, setWord, forget] = useKept(`by-taste.${view.batchId}`, '');
  const [answer, setAnswer, forgetAnswer] = useKept(`stop.by-taste.${view.batchId}`, '');
  const [said, setSaid] = useState<string[]>([]);
  const { busy, error, run, fail } = useSave();
  const row = offered.find((one) => one.id === id);
  const add = (overrides: Answer[] = []): void => {
    if (here.personId === null) return fail(NOBODY);
    if (!row || grams === null || grams <= 0) return fail('Say how much went in.');
    const { taken, missingG } = drawFrom(row.stock, grams);
    if (missingG > 0.001) return fail(`Only ${show.mass(row.stockG * 1000)} of ${row.name} are free.`);
    void run(() =>
      send('POST', '/api/ledger/steps', {
        personId: here.personId,
        machineId: here.view.machines.find(({ name }) => name === view.bowl.machine)?.id ?? null,
        minutes: 0,
        overrides,
        command: {
          kind: 'charge',
          batchId: view.batchId,
          sources: taken.map(({ line, grams: own }) => ({ holdingId: line.holdingId, massG: own })),
          note: word === '' ? 'By taste' : `By taste: ${word}`,
        },
      }),
    ).then((done) => {
      if (!done) return;
      setSaid((now) => [...now, `${show.mass(grams * 1000)} ${row.name}${word === '' ? '' : `: “${word}”`}`]);
      forget();
      forgetAnswer();
    });
  };
  if (offered.length === 0) return null;
  const gates = gatesIn(error);
  const person = here.view.people.find((one) => one.id === here.personId)?.name ?? 'you';
  return (
    <Section title="By taste" aside="add, note, again, until it is done">
      <div className="flex flex-wrap items-end gap-3">
        <SelectBox
          className="min-w-40 flex-1"
          label="What"
          value={id}
          options={offered.map((one) => [one.id, one.name] as const)}
          onChange={setId}
        />
        <Quantity className="w-32" label="Added now" mass="g" value={grams} onValue={setGrams} />
        <Box
          className="min-w-40 flex-1"
          label="How it tastes"
          value={word}
          onChange={setWord}
          placeholder="still bitter"
          onEnter={() => add()}
        />
        <button type="button" className="button" disabled={busy} onClick={() => add()}>
          It is in
        </button>
      </div>
      {said.length > 0 && (
        <p className="mt-2 text-sm">
          Added: {said.join('; ')}. Now {view.figures.cocoaPct.toFixed(1)}&nbsp;% cocoa and{' '}
          {view.figures.sugarPct.toFixed(1)}&nbsp;% sugar.
        </p>
      )}
      {gates.length > 0 ? (
        <GatePanel word={answer} setWord={setAnswer} gates={gates} person={person} busy={busy} goOn={add} />
      ) : (
        <Refusal error={error} />
      )}
    </Section>
  );
}
