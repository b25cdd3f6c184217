import { Link } from 'react-router';
import type { YieldJudgement } from '@wunsch/core/ledger/yields';
import { Overrule } from './Overrule';

/** What the numbers say, why, and what to do. */
export function Verdict({
  judgement,
  title,
  stepId,
}: {
  judgement: YieldJudgement & { code?: string; stepId?: string };
  title: string;
  /** The step that it is about, where it does not say so itself. */
  stepId?: string;
}) {
  const about = judgement.stepId ?? stepId;
  const watch = judgement.tone === 'watch';
  return (
    <section
      className={`rounded-md px-4 py-3 ${watch ? 'bg-ripe-wash' : judgement.tone === 'good' ? 'bg-leaf-wash' : 'bg-sunk'}`}
      aria-label={title}
    >
      <div className="flex items-baseline justify-between gap-2 text-sm">
        <span className="text-soft">{title}</span>
        <span className="font-semibold whitespace-nowrap">
          {watch ? 'look here' : judgement.tone === 'good' ? 'as usual' : 'not known yet'}
        </span>
      </div>
      <p className="figure mt-1 text-[1.35rem] leading-snug">{judgement.sentence}</p>
      {judgement.todo !== null && <p className="mt-2 text-sm">{judgement.todo}</p>}
      <p className="mt-2 text-[0.8125rem] text-soft">
        {judgement.evidence}
        {judgement.stepId !== undefined && (
          <>
            {' '}
            <Link className="link" to={`/step/${judgement.stepId}`}>
              {judgement.code ?? 'The step'}
            </Link>
          </>
        )}
      </p>
      {about !== undefined && <Overrule judged="yield" subject={about} said={judgement.sentence} />}
    </section>
  );
}
