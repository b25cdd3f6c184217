import { Link } from 'react-router';
import type { StepView } from '@wunsch/core/api/types';
import { useApi } from '../parts/api';
import { Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { METER_WORDS } from './MeterPanel';
import { Overrule } from '../parts/Overrule';

/** Why the last pours came out as they did: the first that went wrong, what it does, what to change. */
export function LastPours({ steps }: { steps: readonly Pick<StepView, 'id'>[] }) {
  if (steps.length === 0) return null;
  return (
    <div className="mt-10">
      <Section title="The last pours, judged">
        <ul className="rows">
          {steps.map(({ id }) => (
            <Poured key={id} stepId={id} />
          ))}
        </ul>
      </Section>
    </div>
  );
}

function Poured({ stepId }: { stepId: string }) {
  const show = useShow();
  const { data } = useApi(`/api/temper/steps/${stepId}`);
  if (!data) return null;
  const { code, at, method, verdict, byHand, meter } = data;
  const { first, others, sentence, sure } = verdict;
  return (
    <li className="py-3">
      <p className="text-sm text-soft">
        <Link className="link" to={`/step/${stepId}`}>
          <span className="code">{code}</span>
        </Link>{' '}
        {show.moment(at)}, {method}, {byHand ? 'read by hand' : 'from its curve'}
        {first !== null && `, ${sure}`}
        {meter !== null && `; meter: ${METER_WORDS[meter.verdict]}, bend at ${show.temp(meter.tempC)}`}.{' '}
        <Link className="link" to={`/practise?pour=${stepId}`}>
          Once more in the model
        </Link>
      </p>
      <p className={first === null ? '' : 'font-semibold'}>{sentence}</p>
      {first !== null && <p className="text-sm">Next time: {first.todo}</p>}
      {others.length > 0 && (
        <p className="text-sm text-soft">After that: {others.map((fault) => fault.sentence).join(' ')}</p>
      )}
      <Overrule judged="pour" subject={stepId} said={sentence} />
    </li>
  );
}
