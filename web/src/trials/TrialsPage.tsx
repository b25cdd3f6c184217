import { Link } from 'react-router';
import { useApi } from '../parts/api';
import { Empty, Loading } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { TasteHead } from '../taste/TasteNav';

/** Trials of anything that is varied, roast trials among them. */
export function TrialsPage() {
  const show = useShow();
  const { data, error } = useApi('/api/trials');
  if (!data) return <Loading error={error} />;
  const plan = (
    <Link className="button button-main" to="/trial/new">
      Plan a trial
    </Link>
  );
  return (
    <>
      <TasteHead title="Trials">
        Vary one thing, or a few; make them in an order by chance; taste them blind; see what to make next.
      </TasteHead>
      {data.trials.length === 0 ? (
        <Empty title="No trial yet." action={plan}>
          Conche hours, fineness, weeks of rest, sugar, a sample of beans: two batches already say more than none.
        </Empty>
      ) : (
        <>
          {plan}
          <ul className="rows mt-4">
            {data.trials.map(({ id, link, trial, arms, made, verdict, at, person }) => (
              <li key={id} className="py-4">
                <Link className="link text-xl" to={link}>
                  {trial.name}
                </Link>
                <span className="text-soft">
                  {' '}
                  {show.day(at)}, {person}; {new Set(made.map(({ arm }) => arm)).size} of {arms.length} made,{' '}
                  {verdict.scored} tasted
                </span>
                <p className="mt-1 max-w-4xl text-lg">{verdict.sentence}</p>
                {verdict.next && (
                  <p className="text-soft">
                    Make next: <span className="text-ink">{arms[verdict.next.arm]}</span>
                  </p>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
