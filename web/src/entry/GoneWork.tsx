import { useNavigate } from 'react-router';
import { useApi } from '../parts/api';
import { dropDraft } from '../parts/draft';
import { stepWords } from '../parts/log-words';
import { Loading } from '../parts/pieces';
import { useShow } from '../parts/workshop';

/** Somebody else has ended the work that was being typed at: who and how, and what to do with what was typed here. */
export function GoneWork({ workId, onDone }: { workId: string; onDone: () => void }) {
  const answer = useApi(`/api/ledger/works/${encodeURIComponent(workId)}`);
  const show = useShow();
  const navigate = useNavigate();
  if (!answer.data) return <Loading error={answer.error} />;
  const { closedAt, step } = answer.data;
  const leave = (): void => {
    dropDraft(`work.${workId}`);
    onDone();
  };
  return (
    <section role="alert" className="rounded-md bg-ripe-wash px-5 py-4">
      <p className="figure text-2xl leading-snug">
        {step
          ? `${step.person} has saved this at ${show.time(closedAt)}: ${stepWords(step, show)}.`
          : `This was put back at ${show.time(closedAt)}, as if it had not begun.`}
      </p>
      <p className="mt-2">
        What you typed is kept and was not saved: the same grams are not entered twice.{' '}
        {step && 'If yours is right, send it as a correction of that step; both versions stay readable.'}
      </p>
      <div className="mt-4 flex flex-wrap gap-3">
        {step && (
          <button
            type="button"
            className="button button-main"
            onClick={() => void navigate(`/step/${step.id}?typed=${encodeURIComponent(`work.${workId}`)}`)}
          >
            Send mine as a correction
          </button>
        )}
        <button type="button" className="button" onClick={leave}>
          Throw mine away
        </button>
      </div>
    </section>
  );
}
