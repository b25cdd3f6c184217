import { Link } from 'react-router';
import type { ProgramView, RoasterView } from '@wunsch/core/api/roast';
import type { HoldingView } from '@wunsch/core/api/types';
import { checkProgram, layerOf } from '@wunsch/core/roast/program';
import type { StartRoast } from '@wunsch/core/roast/records';
import { PROBES, type Probe } from '@wunsch/core/work/roasting-words';
import { StepForm } from '../entry/StepForm';
import type { Outgoing } from '../entry/step-form';
import { send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Chips, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { useHere, useShow } from '../parts/workshop';
import { useWorked } from '../parts/worked';
import { roasting, useFit, useRoastersInUse } from './compute';
import { useLoads } from './LoadTable';
import { Figures } from './ProgramParts';
import { SimulatedProbe } from './SimulatedProbe';
import { stepWords } from './words';

const PROBE_NAMES: Record<Probe, string> = {
  hand: 'By hand, or none',
  sent: 'A probe that sends',
  simulated: 'Simulated probe',
};
const PROBE_KEPT = 'wunsch.roast-probe';

interface Choice {
  /** Null for what is suggested; '' for no program. */
  programId: string | null;
  probe: Probe;
  moisture: string;
  layer: string;
}

/** Families are called by country and region. */
const countryOf = (family: string): string => family.split(',')[0] ?? family;

const lastProbe = (demo: boolean): Probe => {
  const kept = localStorage.getItem(PROBE_KEPT);
  return PROBES.find((probe) => probe === kept) ?? (demo ? 'simulated' : 'hand');
};

/**
 * A load goes in: which beans, which program, how much. What was done last with such beans is chosen already, so that
 * the usual roast is one press away.
 */
export function RoastStart({
  candidates,
  waiting,
  onStarted,
}: {
  candidates: readonly HoldingView[];
  waiting: number;
  onStarted: (workId: string) => void;
}) {
  const here = useHere();
  const draft = useDraft<Choice>('start.roast.how', () => ({
    programId: null,
    probe: lastProbe(here.view.settings.demo),
    moisture: '',
    layer: '',
  }));
  const programs = useApi('/api/roast/programs').data?.programs;
  const roasters = useRoastersInUse();
  const loads = useLoads(60);
  if (!programs || !roasters) return null;
  const set = (part: Partial<Choice>): void => draft.set((now) => ({ ...now, ...part }));

  /** Programs that fit what was picked, the usual one first, and the one that is chosen. */
  const offer = (codes: readonly string[]): { family: string; programs: ProgramView[]; chosen: ProgramView | null } => {
    const beans = candidates.find(({ code }) => code === codes[0]) ?? candidates[0];
    const family = beans?.family ?? '';
    const fitting = programs.filter(
      ({ shelved, program }) => !shelved && (program.kind === 'nib') === (beans?.kind === 'nibs'),
    );
    const lately = loads?.find((row) => row.family === family && row.programId !== null)?.programId;
    const usual =
      fitting.find(({ id }) => id === lately) ??
      fitting.find(({ program }) => program.suits.some((row) => row.family === family)) ??
      fitting.find(({ program }) => program.suits.some((row) => countryOf(row.family) === countryOf(family))) ??
      fitting[0];
    const wanted = draft.value.programId;
    return {
      family,
      programs: [...fitting].sort((a, b) => Number(b === usual) - Number(a === usual)),
      chosen: wanted === null ? (usual ?? null) : (fitting.find(({ id }) => id === wanted) ?? null),
    };
  };
  const roasterFor = (chosen: ProgramView | null, machineId: string | null = null): RoasterView | null =>
    roasters.find(({ id }) => id === (machineId ?? chosen?.program.roasterId)) ?? roasters[0] ?? null;

  const start = async (entry: Outgoing): Promise<null> => {
    const codes = entry.sources.flatMap(({ holdingId }) => candidates.find(({ id }) => id === holdingId)?.code ?? []);
    const { chosen } = offer(codes);
    const roaster = roasterFor(chosen, entry.machineId);
    const massG = entry.sources.reduce((sum, source) => sum + (source.massG ?? 0), 0);
    const { probe } = draft.value;
    const roast: StartRoast = {
      programId: chosen?.id ?? null,
      version: chosen?.version ?? null,
      plan: chosen?.program ?? null,
      moisturePct: typedFigure(draft.value.moisture, 'The water in the beans'),
      layerMm: typedFigure(draft.value.layer, 'The depth of the layer') ?? layerOf(massG, roaster?.facts ?? null),
      beanStartC: null,
      probe,
    };
    const { data } = await send(
      'POST',
      '/api/ledger/works',
      {
        station: 'roast',
        sources: entry.sources,
        machineId: roaster?.id ?? null,
        personId: entry.personId,
        dueAt: null,
        ...(entry.at === undefined ? {} : { at: entry.at }),
        note: '',
        roast,
      },
      entry.key,
    );
    localStorage.setItem(PROBE_KEPT, probe);
    draft.clear();
    onStarted(data.id);
    return null;
  };

  return (
    <StepForm
      kind="roast"
      specs={[]}
      station="roast"
      draftId="start.roast"
      candidates={candidates}
      initialPicked={candidates[0] ? [candidates[0].id] : []}
      shownFirst={Math.min(8, Math.max(2, waiting))}
      takeG={(codes) => offer(codes).chosen?.program.loadG}
      submit="Start the roast"
      finish={() => ({})}
      send={start}
      below={({ codes }) => <ProgramChoice {...offer(codes)} set={set} />}
      after={({ inMg, codes }) => {
        const { chosen } = offer(codes);
        return <How inMg={inMg} chosen={chosen} roaster={roasterFor(chosen)} choice={draft.value} set={set} />;
      }}
    />
  );
}

/** A figure that may be left out. @throws Error when it stands there and is none */
function typedFigure(text: string, name: string): number | null {
  if (text.trim() === '') return null;
  const value = readNumber(text);
  if (value === null) throw new Error(`${name} is not a number.`);
  return value;
}

function ProgramChoice({
  family,
  programs,
  chosen,
  set,
}: {
  family: string;
  programs: readonly ProgramView[];
  chosen: ProgramView | null;
  set: (part: Partial<Choice>) => void;
}) {
  return (
    <div className="mt-4">
      <Chips
        legend={family === '' ? 'Program' : `Program, for ${family}`}
        options={[
          ...programs.map(({ id, program }) => [id, program.name] as const),
          ['', 'No program, by nose'] as const,
        ]}
        chosen={[chosen?.id ?? '']}
        choose={([id]) => set({ programId: id ?? '' })}
      />
    </div>
  );
}

/** What the choice would do, and what else decides how it goes. */
function How({
  inMg,
  chosen,
  roaster,
  choice,
  set,
}: {
  inMg: number;
  chosen: ProgramView | null;
  roaster: RoasterView | null;
  choice: Choice;
  set: (part: Partial<Choice>) => void;
}) {
  const massG = inMg / 1000;
  return (
    <>
      <Foreseen chosen={chosen} roaster={roaster} massG={massG} choice={choice} />
      <details className="mt-3">
        <summary className="label min-h-11 cursor-pointer py-3">
          Probe, layer, water: {PROBE_NAMES[choice.probe].toLowerCase()}
        </summary>
        <Chips
          legend="Who reads the temperature"
          options={PROBES.map((probe) => [probe, PROBE_NAMES[probe]] as const)}
          chosen={[choice.probe]}
          choose={([probe]) => set({ probe: probe ?? 'hand' })}
        />
        {choice.probe === 'simulated' && <SimulatedProbe speeds />}
        <div className="mt-3 grid grid-cols-2 gap-4">
          <NumberBox
            label="Water in the beans, if measured"
            unit="%"
            value={choice.moisture}
            placeholder="7"
            onChange={(moisture) => set({ moisture })}
          />
          <NumberBox
            label="Depth of the layer, if not as usual"
            unit="mm"
            value={choice.layer}
            placeholder={layerOf(massG, roaster?.facts ?? null)?.toFixed(0)}
            onChange={(layer) => set({ layer })}
          />
        </div>
      </details>
    </>
  );
}

/** What the chosen program would do with this load on this roaster. */
function Foreseen({
  chosen,
  roaster,
  massG,
  choice,
}: {
  chosen: ProgramView | null;
  roaster: RoasterView | null;
  massG: number;
  choice: Choice;
}) {
  const show = useShow();
  const { settings } = useHere().view;
  const fit = useFit(roaster, chosen?.program.kind === 'nib');
  const moisture = readNumber(choice.moisture) ?? 7;
  const layerMm = readNumber(choice.layer) ?? layerOf(massG, roaster?.facts ?? null);
  const band = useWorked(
    fit && chosen && massG > 0 ? JSON.stringify([chosen.id, chosen.version, massG, layerMm, moisture]) : null,
    async () => {
      if (!fit || !chosen) throw new Error('nothing chosen');
      const start = { beanC: 20, moisture: moisture / 100 };
      return roasting().band(chosen.program, { massG, layerMm }, fit, start, []);
    },
  );
  if (!chosen)
    return (
      <p className="mt-3 max-w-2xl text-soft">
        Times, settings, signs and weights are kept all the same. A{' '}
        <Link className="link" to="/roasting">
          program
        </Link>{' '}
        would say what is next, and what to expect.
      </p>
    );
  const { program } = chosen;
  const warnings = checkProgram({ ...program, loadG: massG > 0 ? massG : program.loadG }, roaster, settings);
  return (
    <div className="mt-5">
      <p className="max-w-2xl">
        {`Preheat ${roaster ? `${roaster.name} to ` : 'to '}${show.temp(program.preheatC)}${roaster ? `, about ${roaster.facts.preheatMin} min` : ''}. `}
        {program.steps.map((step) => stepWords(step, show)).join(', then ')}.{' '}
        <Link className="link" to={`/roasting/program/${chosen.id}`}>
          Version {chosen.version}
        </Link>
      </p>
      <div className="mt-3">
        <Figures band={band} massG={massG} moisture={moisture} />
      </div>
      {warnings.map((text) => (
        <p key={text} className="mt-3 rounded-md bg-ripe-wash px-3 py-2 text-sm" role="note">
          {text}
        </p>
      ))}
    </div>
  );
}
