import { Link } from 'react-router';
import { send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Photos } from '../parts/Photos';
import { Empty, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';
import { TasteHead } from './TasteNav';
import { DayBox } from '../parts/dates';

const EMPTY = {
  maker: '',
  bar: '',
  origin: '',
  cocoaPct: '',
  batch: '',
  bestBefore: '',
  massG: '',
  price: '',
  note: '',
};
const FIGURES = [
  ['cocoaPct', 'Cocoa', '%'],
  ['massG', 'Weight', 'g'],
  ['price', 'Price', ''],
] as const;

/** Bars of other makers: bought, tasted, kept; outside the ledger. */
export function OtherMakersPage() {
  const { personId, view } = useHere();
  const { data, error } = useApi('/api/taste/outside');
  const draft = useDraft('outside', () => EMPTY);
  const { busy, error: refused, run, fail } = useSave();
  const typed = draft.value;
  const field = (name: keyof typeof EMPTY) => ({
    value: typed[name],
    onChange: (text: string) => draft.set((now) => ({ ...now, [name]: text })),
  });
  const keep = (): void => {
    if (personId === null) return fail(NOBODY);
    const figures: Record<string, number | null> = {};
    for (const [name, label] of FIGURES) {
      const value = typed[name].trim() === '' ? null : readNumber(typed[name]);
      if (value === null && typed[name].trim() !== '') return fail(`${label}: not a number.`);
      figures[name] = value;
    }
    const bar = { ...typed, ...figures, bestBefore: typed.bestBefore === '' ? null : typed.bestBefore };
    void run(() => send('POST', '/api/taste/outside', { personId, bar }, draft.key)).then(
      (kept) => kept && draft.clear(),
    );
  };
  if (!data) return <Loading error={error} />;
  const { currency } = view.settings;
  return (
    <>
      <TasteHead title="Other makers">
        Bars that were bought to be tasted. They are in no ledger and on no shelf.
      </TasteHead>
      <div className="grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div>
          {data.bars.length === 0 ? (
            <Empty title="None yet.">What was bought and tasted is kept here, with a photo of its wrapper.</Empty>
          ) : (
            <ul className="rows">
              {data.bars.map(({ id, bar, photos, sheets, score, person }) => (
                <li key={id} className="py-4">
                  <div className="flex items-baseline gap-4">
                    <span className="min-w-0 flex-1">
                      <strong>{bar.maker}</strong>, {bar.bar}
                    </span>
                    <span className="figure text-2xl">{score === null ? '' : score.toFixed(1)}</span>
                    <Link className="button" to={`/tasting?outside=${id}`}>
                      {sheets === 0 ? 'Taste it' : 'Taste it again'}
                    </Link>
                  </div>
                  <p className="text-sm text-soft">
                    {[
                      bar.origin,
                      bar.cocoaPct === null ? '' : `${bar.cocoaPct}\u00a0%`,
                      bar.massG === null ? '' : `${bar.massG} g`,
                      bar.price === null ? '' : `${bar.price} ${currency}`,
                      bar.batch === '' ? '' : `batch ${bar.batch}`,
                      bar.bestBefore === null ? '' : `best before ${bar.bestBefore}`,
                      `kept by ${person}`,
                    ]
                      .filter((row) => row !== '')
                      .join(', ')}
                  </p>
                  {bar.note !== '' && <p className="text-sm">{bar.note}</p>}
                  <Photos
                    subject={`bar:${id}`}
                    photos={photos}
                    caption={`${bar.maker}, ${bar.bar}`}
                    words="Photograph it"
                  />
                </li>
              ))}
            </ul>
          )}
        </div>
        <Section title="A bar was bought" id="bought">
          <div className="grid grid-cols-2 gap-3">
            <Box className="col-span-2" label="Maker" {...field('maker')} />
            <Box className="col-span-2" label="Bar" {...field('bar')} />
            <Box className="col-span-2" label="Origin" {...field('origin')} />
            {FIGURES.map(([name, label, unit]) => (
              <NumberBox key={name} label={label} unit={unit === '' ? currency : unit} {...field(name)} />
            ))}
            <Box label="Its batch" {...field('batch')} />
            <DayBox className="col-span-2" label="Best before" {...field('bestBefore')} />
            <Box className="col-span-2" label="Note" {...field('note')} />
          </div>
          <button type="button" className="button button-main mt-3" disabled={busy} onClick={keep}>
            Keep it
          </button>
          <Refusal error={refused} />
        </Section>
      </div>
    </>
  );
}
