import { Link } from 'react-router';
import type { SheetView } from '@wunsch/core/api/taste';
import { SCALES } from '@wunsch/core/taste/records';
import { useApi } from '../parts/api';
import { Empty, Loading } from '../parts/pieces';
import { capital } from '../parts/words';
import { useShow } from '../parts/workshop';
import { clockWords } from './impression';
import { TasteHead } from './TasteNav';

/** Guided tastings, and what moved when somebody went back. */
export function TastingsPage() {
  const show = useShow();
  const { data, error } = useApi('/api/taste/tastings');
  if (!data) return <Loading error={error} />;
  const start = (
    <Link className="button button-main" to="/tasting">
      Begin a tasting
    </Link>
  );
  return (
    <>
      <TasteHead title="Tastings" />
      {data.tastings.length === 0 ? (
        <Empty title="No guided tasting yet." action={start}>
          Ten minutes, hands partly busy: look, snap, smell, the melt on a clock, then a few short scales.
        </Empty>
      ) : (
        <>
          {start}
          <ul className="rows mt-4">
            {data.tastings.map((row) => (
              <li key={row.tastingId} className="py-4">
                <p className="text-soft">
                  {show.moment(row.at)}, {row.palate}
                  {row.sheets[0]?.mood ? `, ${row.sheets[0].mood}` : ''}
                  {row.sheets[0]?.food ? `, ${row.sheets[0].food} food` : ''}
                </p>
                {row.changes.length > 0 && (
                  <p className="mt-1 text-lg">
                    On going back:{' '}
                    {row.changes
                      .map(({ subjectName, scale, from, to }) => `${subjectName} ${scale} ${from} → ${to}`)
                      .join('; ')}
                    .
                  </p>
                )}
                <ul className="mt-2 grid gap-x-8 gap-y-3 md:grid-cols-2">
                  {row.sheets.map((sheet) => (
                    <Sheet key={sheet.id} sheet={sheet} />
                  ))}
                </ul>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function Sheet({ sheet }: { sheet: SheetView }) {
  const { overall, scales, notes, smell, seconds, eatWhen, note, visit, cleanBreak, atSeam, snap } = sheet;
  const figures = SCALES.flatMap((scale) => (scales[scale] === undefined ? [] : [`${scale} ${scales[scale]}`]));
  return (
    <li className="flex gap-4">
      <span className="figure w-10 shrink-0 text-3xl">{overall ?? '–'}</span>
      <div className="min-w-0">
        <p>
          {sheet.subjectCode !== null && (
            <Link className="code link" to={`/tub/${sheet.subjectCode}`}>
              {sheet.subjectCode}
            </Link>
          )}{' '}
          {sheet.subjectName}
          {visit > 1 && <span className="text-soft">, look {visit}</span>}{' '}
          {visit === 1 && (
            <Link
              className="link text-sm text-soft"
              to={
                sheet.subject.of === 'outside'
                  ? `/tasting?outside=${sheet.subject.id}`
                  : `/tasting?code=${encodeURIComponent(sheet.subjectCode ?? '')}`
              }
            >
              taste it again
            </Link>
          )}
        </p>
        {smell.length > 0 && <p className="text-sm">Smells of {smell.join(', ')}.</p>}
        {notes.length > 0 && (
          <p className="text-sm">
            {notes.map(({ word, second }) => `${word} ${clockWords(second)}`).join(', ')}
            {seconds > 0 && `, gone after ${clockWords(seconds)}`}.
          </p>
        )}
        {(snap !== null || cleanBreak !== null) && (
          <p className="text-sm text-soft">
            {snap !== null && `Snap ${snap}`}
            {cleanBreak !== null && `${snap === null ? 'Broke' : ', broke'} ${cleanBreak ? 'clean' : 'in crumbs'}`}
            {atSeam && ', at a seam'}.
          </p>
        )}
        {figures.length > 0 && <p className="text-sm text-soft">{capital(figures.join(', '))}.</p>}
        {eatWhen !== '' && <p className="text-sm">To eat: {eatWhen}</p>}
        {note !== '' && <p className="text-sm">{note}</p>}
      </div>
    </li>
  );
}
