import { useState } from 'react';
import { send, useApi } from '../parts/api';
import { useKept } from '../parts/draft';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Caution, HoldingRow, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

type Use = 'sold' | 'given' | 'composted' | 'used';
const USES: readonly (readonly [Use, string])[] = [
  ['sold', 'Sell it'],
  ['given', 'Give it away'],
  ['composted', 'Compost it'],
  ['used', 'Use it here'],
];

/** Husk in the store: what becomes of it, and what it takes off the price of the nibs. */
export function HuskPanel() {
  const show = useShow();
  const { personId, view } = useHere();
  const stock = useApi('/api/trace/stock').data;
  const husk = (stock?.holdings ?? []).filter(({ kind, freeMg }) => kind === 'husk' && freeMg > 0);
  const { busy, error, run, fail } = useSave();
  const [chosen, setChosen] = useState<string | null>(null);
  const [use, setUse] = useState<Use>('sold');
  const [price, setPrice, forgetPrice] = useKept(`husk.${chosen}.price`, '');
  const [to, setTo, forgetTo] = useKept(`husk.${chosen}.to`, '');
  if (husk.length === 0) return null;
  const row = husk.find(({ id }) => id === chosen);
  const save = async (): Promise<void> => {
    if (!row) return;
    if (personId === null) return fail(NOBODY);
    const takings = use === 'sold' ? readNumber(price) : 0;
    if (takings === null) return fail('Say what it fetched, all of it.');
    const saved = await run(() =>
      send('POST', '/api/ledger/steps', {
        command: {
          kind: 'sell',
          sources: [{ holdingId: row.id, massG: row.freeMg / 1000 }],
          takings,
          to,
          use,
          note: '',
        },
        personId,
        machineId: null,
        minutes: 0,
        energyKwh: 0,
      }),
    );
    if (saved) {
      forgetPrice();
      forgetTo();
      setChosen(null);
    }
  };
  return (
    <Section title="Husk in the store" aside={`${show.mass(husk.reduce((sum, { freeMg }) => sum + freeMg, 0))}`}>
      <ul className="rows">
        {husk.slice(-4).map((holding) => (
          <HoldingRow key={holding.id} holding={holding}>
            <button
              type="button"
              className="button"
              aria-expanded={holding.id === chosen}
              onClick={() => setChosen(holding.id === chosen ? null : holding.id)}
            >
              What becomes of it
            </button>
          </HoldingRow>
        ))}
      </ul>
      {row && (
        <div className="mt-3 grid gap-4 rounded-md bg-sheet px-4 py-3">
          <Chips
            legend={`All of ${row.code}, ${show.mass(row.freeMg)}`}
            options={USES}
            chosen={[use]}
            choose={([name]) => setUse(name ?? 'sold')}
          />
          <div className="grid gap-4 sm:grid-cols-2">
            {use === 'sold' && (
              <NumberBox label="Fetched" unit={view.settings.currency} value={price} onChange={setPrice} />
            )}
            <Box label="To whom" value={to} onChange={setTo} />
          </div>
          <Caution>
            Husk comes from the raw side and can carry pathogens, heavy metals and pesticide residues; whether it may be
            sold for infusions is for the local authority. Poisonous to dogs, as mulch too.
          </Caution>
          <Refusal error={error} />
          <button
            type="button"
            className="button button-main justify-self-start"
            disabled={busy}
            onClick={() => void save()}
          >
            Book it
          </button>
        </div>
      )}
      <p className="mt-2 text-sm text-soft">What husk fetches is taken off the cost of the nibs it came with.</p>
    </Section>
  );
}
