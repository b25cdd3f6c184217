import { Link } from 'react-router';
import { useApi } from '../parts/api';
import { Empty, Loading } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { RoastingHead } from './RoastingNav';

/** Which roast suits a lot: plans of roasts, and what they say so far. */
export function TrialsPage() {
  const show = useShow();
  const answer = useApi('/api/roast/trials');
  if (!answer.data) return <Loading error={answer.error} />;
  const { trials } = answer.data;
  const plan = (
    <Link className="button button-main" to="/roasting/trial/new">
      Plan a trial
    </Link>
  );
  return (
    <>
      <RoastingHead title="Roast trials">
        Which roast suits a lot: a few small loads, warmer and cooler, shorter and longer, tasted by the panel.
      </RoastingHead>
      {trials.length === 0 ? (
        <Empty title="No trial yet." action={plan}>
          Two small loads already say more than none; six, over warmth and length, begin to show a hill.
        </Empty>
      ) : (
        <>
          {plan}
          <ul className="rows mt-5">
            {trials.map(({ id, trial, lotCode, lotName, verdict, loads, at, person }) => (
              <li key={id} className="py-4">
                <Link className="link text-xl" to={`/roasting/trial/${id}`}>
                  {trial.name}
                </Link>
                <span className="text-soft">
                  {' '}
                  {lotCode} {lotName}, {show.day(at)}, {person}; {loads.length} of {trial.cells.length} roasts made,{' '}
                  {verdict.scored} tasted
                </span>
                <p className="mt-1 max-w-4xl text-lg">{verdict.sentence}</p>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
