import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { layerOf } from '@wunsch/core/roast/program';
import { READY_MADE } from '@wunsch/core/roast/ready-made';
import type { Program } from '@wunsch/core/roast/records';
import { PREHEAT_OVER } from '@wunsch/core/roast/solve';
import { useApi } from '../parts/api';
import { hasDraft } from '../parts/draft';
import { Empty, Loading } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { useWorked } from '../parts/worked';
import { roasting, useFit, useRoastersInUse } from './compute';
import { programDraft, ProgramEditor } from './ProgramEditor';

/** A program: one of the workshop's, a starting point, or one worked out for a roast of a trial. */
export function ProgramPage() {
  const { id = 'new' } = useParams();
  const [query] = useSearchParams();
  const trialId = query.get('trial');
  if (id !== 'new') return <Saved id={id} />;
  if (trialId !== null) return <ForTrial trialId={trialId} cell={Number(query.get('cell') ?? 0)} />;
  const from = READY_MADE[Number(query.get('from') ?? 2)] ?? READY_MADE[2];
  return from ? <ProgramEditor key={from.name} id={null} version={0} base={from} versions={[]} /> : null;
}

/** The newest version; or an older one that something was changed in and not saved, which nobody may lose. */
function Saved({ id }: { id: string }) {
  const answer = useApi(`/api/roast/programs/${encodeURIComponent(id)}`);
  const [, lookAgain] = useState(0);
  const versions = answer.data?.versions;
  const last = versions?.at(-1);
  if (!versions || !last) return <Loading error={answer.error} />;
  const shown = versions.findLast(({ version }) => hasDraft(programDraft(id, version))) ?? last;
  return (
    <ProgramEditor
      key={`${id}.${shown.version}`}
      id={id}
      version={shown.version}
      base={shown.program}
      versions={versions}
      onClear={() => lookAgain((n) => n + 1)}
    />
  );
}

/** One steady setting that, by the roaster's own loads, brings the beans where the trial wants them. */
function ForTrial({ trialId, cell }: { trialId: string; cell: number }) {
  const show = useShow();
  const answer = useApi(`/api/roast/trials/${encodeURIComponent(trialId)}`);
  const trial = answer.data?.trial;
  const roasters = useRoastersInUse(trial?.roasterId);
  const roaster = roasters?.find(({ id }) => id === trial?.roasterId) ?? (roasters ? (roasters[0] ?? null) : undefined);
  const fit = useFit(roaster, false);
  const wanted = trial?.cells[cell];
  const setting = useWorked(
    fit && trial && wanted ? JSON.stringify([trialId, cell, roaster?.id, fit.loads.length]) : null,
    async () => {
      if (!fit || !trial || !wanted) return null;
      const load = { massG: trial.loadG, layerMm: layerOf(trial.loadG, roaster?.facts ?? null) };
      return { setC: await roasting().steady(wanted, load, fit, { beanC: 20, moisture: 0.07 }) };
    },
  );
  if (trial && !wanted) return <Empty title="The plan has no such roast.">Go back to the trial and choose one.</Empty>;
  if (!trial || !wanted || !setting) return <Loading error={answer.error} />;
  if (setting.setC === null)
    return (
      <Empty title={`${show.temp(wanted.peakC)} after ${wanted.minutes} min is out of reach.`}>
        No steady setting of {roaster?.name ?? 'the roaster'} brings {show.mass(1000 * trial.loadG)} there. Try a
        smaller load, or more minutes.
      </Empty>
    );
  const base: Program = {
    name: `${trial.name}, roast ${cell + 1}`,
    kind: 'bean',
    school: 'steady',
    reason: `Roast ${cell + 1} of the trial: beans at ${show.temp(wanted.peakC)} after ${wanted.minutes} min.`,
    roasterId: roaster?.id ?? null,
    loadG: trial.loadG,
    preheatC: setting.setC + PREHEAT_OVER,
    stirEveryMin: null,
    coolMin: 60,
    steps: [{ setC: setting.setC, minutes: wanted.minutes, until: null, note: '' }],
    suits: [],
    note: '',
  };
  return <ProgramEditor key={base.name} id={null} version={0} base={base} versions={[]} />;
}
