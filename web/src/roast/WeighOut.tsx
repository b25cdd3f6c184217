import type { Press } from './usePress';
import type { WorkView } from '@wunsch/core/api/types';
import { clock } from '@wunsch/core/roast/words';
import { StepForm } from '../entry/StepForm';
import { ROAST_WORK } from './work';
import { useHere } from '../parts/workshop';
import type { Live } from './useLive';
import { fieldsFor } from '../entry/fields-for';

/** The load is out: on to the scale. */
export function WeighOut({
  live: { view, curve },
  work,
  press,
  onSaved,
}: {
  live: Live;
  work: WorkView;
  press: Press;
  onSaved: (code: string | undefined) => void;
}) {
  const { machines } = useHere().view;
  const { roast } = view;
  const kw = machines.find(({ id }) => id === work.machineId)?.kw ?? 0;
  const minutes = (roast.seconds ?? 0) / 60;
  const last = curve.beanC.findLast((tempC) => tempC !== null) ?? null;
  return (
    <div>
      <h2 className="text-2xl">Weigh it out</h2>
      <p className="mt-1 mb-4 text-soft">
        Out after {clock(roast.seconds ?? 0)}. Cool it fast, in the open;{' '}
        {roast.plan ? `${roast.plan.coolMin} min before it is cracked.` : 'fully before it is cracked.'}{' '}
        <button type="button" className="button button-quiet" onClick={() => press('undo', { what: 'stop' })}>
          It is still in
        </button>
      </p>
      <StepForm
        kind="roast"
        station="roast"
        draftId={`work.${work.id}`}
        fixed={work.sources}
        specs={[...fieldsFor('roast', 'outG', 'note')]}
        machineId={work.machineId}
        minutes={Math.min(minutes, 20)}
        kwh={(kw * Math.min(minutes, 480)) / 60}
        path={`/api/ledger/works/${work.id}/finish`}
        submit="Save the load"
        finish={(values, sources) => ({ ...values, program: [], endBeanC: last, sources })}
        onSaved={({ step }) =>
          onSaved(step.lines.find((line) => line.holdingId !== null && line.massMg > 0)?.code ?? undefined)
        }
        {...ROAST_WORK.sum}
      />
    </div>
  );
}
