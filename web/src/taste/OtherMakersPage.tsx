import { Link } from 'react-router';
import { outsideBar } from '@wunsch/core/taste/records';
import { send, useApi } from '../parts/api';
import { Photos } from '../parts/Photos';
import { Empty, Loading, Section } from '../parts/pieces';
import { somebody } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { Field } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';
import { TasteHead } from './TasteNav';

/** Bars of other makers: bought, tasted, kept; outside the ledger. */
export function OtherMakersPage() {
  const { personId, view } = useHere();
  const show = useShow();
  const { data, error } = useApi('/api/taste/outside');
  const record = useRecordForm('outside', outsideBar, () => ({}));
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
                      bar.massG === null ? '' : show.piece(bar.massG),
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
          <RecordSheet
            record={record}
            save={(bar, key) => send('POST', '/api/taste/outside', { personId: somebody(personId), bar }, key)}
            submit="Keep it"
            className="grid grid-cols-2 gap-3"
          >
            <Field className="col-span-2" at="maker" />
            <Field className="col-span-2" at="bar" />
            <Field className="col-span-2" at="origin" />
            <Field at="cocoaPct" />
            <Field at="massG" />
            <Field at="price" label={`Price (${currency})`} />
            <Field at="batch" />
            <Field className="col-span-2" at="bestBefore" />
            <Field className="col-span-2" at="note" />
          </RecordSheet>
        </Section>
      </div>
    </>
  );
}
