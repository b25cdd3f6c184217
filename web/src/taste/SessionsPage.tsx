import { Link } from 'react-router';
import { useApi } from '../parts/api';
import { Empty, Loading } from '../parts/pieces';
import { count, useShow } from '../parts/workshop';
import { TasteHead } from './TasteNav';

export const STATE_WORDS = { open: 'tasting now', closed: 'closed, not opened yet', opened: 'opened' } as const;

/** Blind sessions, the newest first: what each said. */
export function SessionsPage() {
  const show = useShow();
  const { data, error } = useApi('/api/taste/sessions');
  if (!data) return <Loading error={error} />;
  const plan = (
    <Link className="button button-main" to="/session/new">
      Plan a session
    </Link>
  );
  return (
    <>
      <TasteHead title="Blind sessions">Which is better, by how much, and how sure that is.</TasteHead>
      {data.sessions.length === 0 ? (
        <Empty title="No session yet." action={plan}>
          Two bars and six people are enough to begin with; phones need no account.
        </Empty>
      ) : (
        <>
          {plan}
          <ul className="rows mt-4">
            {data.sessions.map(({ id, at, session, state, seats, result, host }) => (
              <li key={id} className="py-4">
                <Link className="link text-xl" to={`/session/${id}`}>
                  {session.name}
                </Link>
                <span className="text-soft">
                  {' '}
                  {show.day(at)}, {host}; {session.bars.length} bars,{' '}
                  {count(seats.filter(({ taster }) => taster !== '').length)} of {session.tasters} tasters,{' '}
                  {STATE_WORDS[state]}
                </span>
                {result && <p className="mt-1 max-w-4xl text-lg">{result.verdict.sentence}</p>}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
