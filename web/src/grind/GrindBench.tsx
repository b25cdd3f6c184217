import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { BenchView, GrindView } from '@wunsch/core/api/types';
import { useNow } from '../app/DueLine';
import { Empty, Figure } from '../parts/pieces';
import { RouteChoice } from '../parts/RouteChoice';
import { span, useHere, useShow } from '../parts/workshop';
import { fieldG, type Fields } from '../entry/entry';
import { Chips } from '../parts/fields';
import { Conching } from './Conching';
import { Foretold, ForetoldMore, useForetold } from './Foretold';
import { PlannedActs } from './PlannedActs';
import { StonesSwitch } from './Stones';
import { Grinder } from './Grinder';
import { TakeReading } from './TakeReading';
import { useGrinder, useRun } from './useRun';
import { Warming } from './Warming';
import { judgeHoldUp } from '@wunsch/core/grind/hold-up';
import { machinesAt } from '@wunsch/core/workshop/machines';
import { StepForm } from '../entry/StepForm';
import { usualIn } from '../entry/WorkBench';
import { fieldsFor } from '../entry/fields-for';

type Act = 'read' | 'add' | 'pour' | 'move';

/** Batches on the stones: what is in the bowl, how fine it is, what to add, when it comes off. */
export function GrindBench({ view }: { view: BenchView }) {
  const [query, setQuery] = useSearchParams();
  const asked = query.get('batch');
  const grind =
    asked === 'new'
      ? undefined
      : (view.grinds.find(({ batch }) => batch.code === asked) ?? (asked === null ? view.grinds[0] : undefined));
  const now = useNow();
  const show = useShow();
  return (
    <div>
      {view.grinds.length > 0 && (
        <div className="mb-6 flex flex-wrap gap-2">
          {view.grinds.map((row) => (
            <button
              key={row.batch.id}
              type="button"
              className="chip min-h-[60px]! rounded-lg! text-left"
              aria-pressed={row === grind}
              onClick={() => setQuery({ batch: row.batch.code }, { replace: true })}
            >
              <span>
                <span className="block">
                  <span className="code">{row.batch.code}</span> · {row.batch.name}
                </span>
                <span className="block text-sm opacity-80">
                  {show.mass(row.massMg)}, {span(now - row.startedAt)} on the stones
                </span>
              </span>
            </button>
          ))}
          <button
            type="button"
            className="chip min-h-[60px]! rounded-lg!"
            aria-pressed={!grind}
            onClick={() => setQuery({ batch: 'new' }, { replace: true })}
          >
            + New batch
          </button>
        </div>
      )}
      {grind ? (
        <Running key={grind.batch.id} grind={grind} view={view} />
      ) : (
        <NewBatch view={view} onStarted={(code) => setQuery({ batch: code }, { replace: true })} />
      )}
    </div>
  );
}

function Running({ grind, view }: { grind: GrindView; view: BenchView }) {
  const show = useShow();
  const now = useNow();
  const [act, setAct] = useState<Act>('read');
  const told = useForetold(grind);
  const run = useRun(grind);
  const grinder = useGrinder(grind.machine?.id);
  const microns = grind.readings.filter(({ what }) => what === 'micron');
  const last = microns.at(-1);
  const { batch, machine } = grind;
  const hours = (now - grind.startedAt) / 3_600_000;
  const carried = grind.carriedOver;
  const most = grinder?.fill.most && grinder.fill.said.most ? grinder.fill.most.p50 : machine?.maxG;
  const over = most != null && grind.massMg / 1000 > most;
  const under = machine?.minG != null && grind.massMg / 1000 < machine.minG;
  return (
    <>
      <div className="grid items-start gap-x-8 gap-y-3 md:grid-cols-[minmax(0,1fr)_auto]">
        <Foretold grind={grind} told={told} />
        <div className="grid grid-cols-2 gap-x-8 gap-y-3 md:max-lg:grid-cols-1">
          {machine?.coarse ? (
            <Figure small label="Passes" value={run?.passes ?? '–'} note="through this machine" />
          ) : (
            <Figure
              small
              label="Last reading"
              value={last?.value == null ? '–' : `${last.value} µm`}
              note={last ? `${span(now - last.at)} ago` : `target ${batch.targetMicron} µm`}
            />
          )}
          <Figure
            small
            label="In the bowl"
            value={show.mass(grind.massMg)}
            note={
              over ? (
                <strong className="text-crimson">over what {machine?.name} carries</strong>
              ) : under ? (
                <strong className="text-crimson">under the minimum of {machine.name}: stones run on each other</strong>
              ) : (
                <>
                  <strong>{grind.cocoa.cocoaPct.toFixed(1)}&nbsp;% cocoa</strong>
                  <br />
                  {machine?.name ?? 'no machine named'}
                </>
              )
            }
          />
        </div>
      </div>
      {carried.length > 0 && (
        <p className="mt-2 rounded-md bg-ripe-wash px-4 py-2 text-sm">
          {machine?.name} may carry over{' '}
          {carried.map(({ allergen, code, at }) => `${allergen} from ${code}, ${show.day(at)}`).join('; ')}: no cleaning
          of allergens is recorded since.
        </p>
      )}
      {grind.cocoa.allergens.length > 0 && (
        <p className="mt-2 font-semibold">In the bowl: {grind.cocoa.allergens.join(', ')}.</p>
      )}
      <div className="mt-4 mb-4 flex flex-wrap gap-2" role="group" aria-label="What to do">
        {(
          [
            ['read', 'Take a reading'],
            ['add', 'Add to the bowl'],
            ['pour', 'Pour it out'],
            ['move', 'Move it on'],
          ] as const
        ).map(([value, label]) => (
          <button key={value} type="button" className="chip" aria-pressed={act === value} onClick={() => setAct(value)}>
            {label}
          </button>
        ))}
        <Link className="chip" to={`/bowl/${batch.code}`}>
          Put it right
        </Link>
        <StonesSwitch grind={grind} />
      </div>
      {act === 'read' && <TakeReading grind={grind} />}
      {act === 'add' && (
        <StepForm
          kind="charge"
          station="grind"
          draftId={`add.${batch.id}`}
          candidates={[...view.pantry.filter(({ kind }) => kind === 'ingredient'), ...view.waiting, ...view.elsewhere]}
          machineId={batch.machineId}
          submit="Add it to the bowl"
          finish={(values, sources) => ({ ...values, batchId: batch.id, sources })}
        />
      )}
      {act === 'pour' && (
        <StepForm
          kind="discharge"
          station="grind"
          draftId={`pour.${batch.id}`}
          fixed={[{ holdingId: batch.id, massMg: grind.massMg, pieces: 0 }]}
          machineId={batch.machineId}
          kwh={(machine?.kw ?? 0) * hours}
          submit="Save the pour"
          parts={(values) => [
            ...((values['outsG'] ?? []) as number[]).map((grams, index) => ({
              name: `block ${index + 1}`,
              mg: grams * 1000,
              tone: 'good' as const,
            })),
            {
              name: 'scraped off',
              mg: typeof values['holdUpG'] === 'number' ? values['holdUpG'] * 1000 : 0,
              tone: 'loss' as const,
            },
            {
              name: 'sieved',
              mg: typeof values['sievedG'] === 'number' ? values['sievedG'] * 1000 : 0,
              tone: 'loss' as const,
            },
          ]}
          restName="still in the machine, or missing"
          finish={(values) => ({ ...values, batchId: batch.id })}
          below={({ fields }) => (
            <>
              <Staying fields={fields} inMg={grind.massMg} />
              {machine && grinder && <HoldUp fields={fields} past={grinder.holdUpsG} machine={machine.name} />}
            </>
          )}
        />
      )}
      {act === 'move' && <MoveOn grind={grind} />}
      <ForetoldMore grind={grind} told={told} />
      <Warming grind={grind} run={run} />
      <Conching grind={grind} study={told?.study ?? null} />
      <p className="mt-3 text-sm text-soft">
        {grind.cocoa.cocoaPct.toFixed(1)}&nbsp;% cocoa, {grind.cocoa.withoutButterPct.toFixed(1)}&nbsp;% without added
        butter.{' '}
        {run &&
          `Ground ${span(run.groundH * 3_600_000)}${run.movedH - run.groundH > 0.1 ? `, moved ${span(run.movedH * 3_600_000)}` : ''} since ${show.moment(grind.startedAt)}. `}
        {grind.origin.sentence}{' '}
        <Link className="link" to={`/batch/${batch.code}`}>
          The whole batch
        </Link>
      </p>
      <PlannedActs grind={grind} told={told} />
      <Grinder grinder={grinder} machine={machine} />
    </>
  );
}

/** What stays in the machine, against what usually does. */
function HoldUp({ fields, past, machine }: { fields: Fields; past: readonly number[]; machine: string }) {
  const show = useShow();
  const holdUpG = fieldG(fields['holdUpG']);
  if (holdUpG === null || holdUpG <= 0) return null;
  const { tone, sentence } = judgeHoldUp(holdUpG, past, machine, show.mass);
  return (
    <p className={`mt-2 text-sm ${tone === 'watch' ? 'rounded-md bg-ripe-wash px-3 py-2' : 'text-soft'}`}>{sentence}</p>
  );
}

/** How much of the bowl stays and runs on, while the pour is weighed. */
function Staying({ fields, inMg }: { fields: Fields; inMg: number }) {
  const show = useShow();
  const leftG = fieldG(fields['leftG']);
  if (leftG === null || leftG <= 0) return null;
  return (
    <p className="mt-3 text-lg">
      {show.mass(inMg - leftG * 1000)} leave the bowl; {show.mass(leftG * 1000)} stay and run on.
    </p>
  );
}

/** Into another machine, a separate conche or a second mill, under its own code. */
function MoveOn({ grind }: { grind: GrindView }) {
  const { view } = useHere();
  const others = machinesAt(view.machines, 'grind').filter(({ id }) => id !== grind.machine?.id);
  if (others.length === 0)
    return (
      <Empty title="There is no other machine at Grind.">
        Add the conche or the second grinder under Workshop; the batch keeps its code when it moves on.
      </Empty>
    );
  return (
    <StepForm
      kind="reading"
      station={null}
      specs={fieldsFor('reading', 'note')}
      draftId={`move.${grind.batch.id}`}
      before={({ choices, choose }) => (
        <div className="mb-3">
          <Chips
            legend={`Where ${grind.batch.code} goes on`}
            options={others.map(({ id, name }) => [id, name] as const)}
            chosen={[choices['machine'] ?? '']}
            choose={([id]) => choose('machine', id ?? '')}
          />
        </div>
      )}
      problem={({ choices = {} }) => ((choices['machine'] ?? '') === '' ? 'Choose the machine it goes on in.' : null)}
      submit="It is in there now"
      extra={({ choices = {} }) => ({ machineId: choices['machine'] })}
      finish={(values) => ({ note: '', ...values, batchId: grind.batch.id, what: 'move', value: null })}
    />
  );
}

const BATCH_FIELDS = fieldsFor(
  'charge',
  ['batch.name', { name: 'batchName' }],
  ['batch.targetMicron', { name: 'targetMicron' }],
  ['batch.cocoaTargetPct', { name: 'cocoaTargetPct' }],
  'note',
);

function NewBatch({ view, onStarted }: { view: BenchView; onStarted: (code: string) => void }) {
  const { view: workshop } = useHere();
  const routeOf = ({ routeId }: Record<string, string | undefined>): string =>
    routeId ?? view.waiting[0]?.routeId ?? workshop.routes[0]?.id ?? '';
  const candidates = [...view.waiting, ...view.elsewhere, ...view.pantry.filter(({ kind }) => kind === 'ingredient')];
  if (candidates.length === 0) {
    return (
      <Empty title="No nibs wait for the stones.">
        Winnow a load first, or receive nibs as a lot. Sugar and butter come from the pantry.
      </Empty>
    );
  }
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6">
        <h2 className="text-2xl">A new batch</h2>
        <Link className="link inline-flex min-h-11 items-center" to="/recipes">
          Weigh it by a recipe
        </Link>
      </div>
      <StepForm
        kind="charge"
        station="grind"
        draftId="grind.new"
        candidates={candidates}
        specs={BATCH_FIELDS}
        initial={{ targetMicron: { text: '20' } }}
        submit="Start the batch"
        pickTitle="What goes into the bowl first"
        head={({ choices, choose }) => (
          <RouteChoice routeId={routeOf(choices)} choose={(id) => choose('routeId', id)} />
        )}
        usualInG={usualIn(view, 'charge')}
        finish={(values, sources, { choices = {} }) => ({
          note: values['note'] ?? '',
          sources,
          batch: {
            name: values['batchName'],
            routeId: routeOf(choices),
            ...(values['targetMicron'] === undefined ? {} : { targetMicron: values['targetMicron'] }),
            cocoaTargetPct: values['cocoaTargetPct'] ?? null,
          },
        })}
        onSaved={({ step }) => step.batchCode !== null && onStarted(step.batchCode)}
      />
    </>
  );
}
