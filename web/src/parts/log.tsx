import { useState } from 'react';
import { Link } from 'react-router';
import type { StepView } from '@wunsch/core/api/types';
import { StationIcon } from './icons';
import { noteOf, stepName, stepWords } from './log-words';
import { useShow } from './workshop';

const LOG_ROWS = 12;

/** The running log, newest first. */
export function Log({ steps, station = true }: { steps: readonly StepView[]; station?: boolean }) {
  const show = useShow();
  const [all, setAll] = useState(false);
  if (steps.length === 0) return <p className="text-sm text-soft">Nothing entered yet.</p>;
  const shown = all ? steps : steps.slice(0, LOG_ROWS);
  return (
    <ol className="rows text-sm">
      {shown.map((step) => (
        <li key={step.id} className="py-2">
          <Link to={`/step/${step.id}`} className="group block rounded-sm">
            <span className="flex items-center gap-2">
              {station && <StationIcon station={step.station} size={16} />}
              <span className="font-semibold group-hover:underline">{stepName(step.kind)}</span>
              <span className="text-soft">{step.person}</span>
              <span className="ml-auto text-soft">{show.moment(step.at)}</span>
            </span>
            <span className="mt-0.5 block text-soft">
              {stepWords(step, show)}
              {step.supersedes !== null && <em> · corrected</em>}
            </span>
            {noteOf(step, show) !== '' && <span className="mt-0.5 block">“{noteOf(step, show)}”</span>}
            {step.overrides.map(({ gate, sentence, word }) => (
              <span key={gate} className="mt-0.5 block text-crimson">
                {sentence} Gone past: “{word}”.
              </span>
            ))}
          </Link>
        </li>
      ))}
      {steps.length > shown.length && (
        <li>
          <button type="button" className="button button-quiet" onClick={() => setAll(true)}>
            All {steps.length}
          </button>
        </li>
      )}
    </ol>
  );
}
