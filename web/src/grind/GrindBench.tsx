import { lazy, Suspense, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { BenchView, GrindView } from '@wunsch/core/api/types';
import { useNow } from '../app/DueLine';
import { Empty, Figure } from '../parts/pieces';
import { span, useHere, useShow } from '../parts/workshop';
import { FIELDS, readNumber, type FieldSpec } from '../entry/entry';
import { StepForm } from '../entry/StepForm';

const GrindChart = lazy(() => import('../charts/GrindChart'));

type Act = 'read' | 'add' | 'pour';

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
  const microns = grind.readings.filter(({ what }) => what === 'micron');
  const last = microns.at(-1);
  const { batch, machine } = grind;
  const hours = (now - grind.startedAt) / 3_600_000;
  const over = machine?.maxG != null && grind.massMg / 1000 > machine.maxG;
  const under = machine?.minG != null && grind.massMg / 1000 < machine.minG;
  return (
    <>
      <div className="grid grid-cols-2 gap-x-8 gap-y-5 sm:grid-cols-4">
        <Figure
          label="Last reading"
          value={last?.value == null ? '–' : `${last.value} µm`}
          note={
            last ? `${span(now - last.at)} ago; target ${batch.targetMicron} µm` : `target ${batch.targetMicron} µm`
          }
        />
        <Figure
          label="In the bowl"
          value={show.mass(grind.massMg)}
          note={
            over ? (
              <strong className="text-crimson">over what {machine.name} carries</strong>
            ) : under ? (
              <strong className="text-crimson">under the minimum of {machine?.name}: stones run on each other</strong>
            ) : (
              (machine?.name ?? 'no machine named')
            )
          }
        />
        <Figure
          label="Cocoa"
          value={`${grind.cocoa.cocoaPct.toFixed(1)} %`}
          note={`${grind.cocoa.withoutButterPct.toFixed(1)} % without added butter`}
        />
        <Figure label="Running" value={span(now - grind.startedAt)} note={`since ${show.moment(grind.startedAt)}`} />
      </div>
      <p className="mt-3 text-sm text-soft">
        {grind.origin.sentence}{' '}
        <Link className="link" to={`/batch/${batch.code}`}>
          The whole batch
        </Link>
      </p>
      {microns.length > 1 && (
        <div className="mt-4">
          <Suspense fallback={<div className="h-52" />}>
            <GrindChart startedAt={grind.startedAt} readings={microns} target={batch.targetMicron} />
          </Suspense>
        </div>
      )}
      <div className="mt-6 mb-5 flex flex-wrap gap-2" role="group" aria-label="What to do">
        {(
          [
            ['read', 'Take a reading'],
            ['add', 'Add to the bowl'],
            ['pour', 'Pour it out'],
          ] as const
        ).map(([value, label]) => (
          <button key={value} type="button" className="chip" aria-pressed={act === value} onClick={() => setAct(value)}>
            {label}
          </button>
        ))}
      </div>
      {act === 'read' && <TakeReading grind={grind} />}
      {act === 'add' && (
        <StepForm
          kind="charge"
          station="grind"
          draftId={`add.${batch.id}`}
          candidates={[...view.pantry.filter(({ kind }) => kind === 'ingredient'), ...view.waiting, ...view.elsewhere]}
          machineId={batch.machineId}
          path="/api/ledger/steps"
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
          path="/api/ledger/steps"
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
          ]}
          restName="still in the machine, or missing"
          finish={(values) => ({ ...values, batchId: batch.id })}
        />
      )}
    </>
  );
}

const READINGS = [
  { value: 'micron', label: 'Fineness, µm' },
  { value: 'bowl-temperature', label: 'Bowl temperature' },
  { value: 'sourness', label: 'Sourness 0–10' },
  { value: 'note', label: 'Only a note' },
] as const;

function TakeReading({ grind }: { grind: GrindView }) {
  const { tempIn } = useShow();
  return (
    <StepForm
      kind="reading"
      station={null}
      specs={[
        { name: 'what', label: 'What is read', type: 'choice', choices: READINGS } as FieldSpec,
        ...(FIELDS.reading ?? []),
      ]}
      draftId={`reading.${grind.batch.id}`}
      initial={{ what: { text: 'micron' } }}
      path="/api/ledger/steps"
      submit="Save the reading"
      finish={(values, _, entry) => {
        const what = entry.fields['what']?.text ?? 'micron';
        const value = readNumber(entry.fields['value']?.text ?? '');
        return {
          note: values['note'] ?? '',
          batchId: grind.batch.id,
          what,
          value: what === 'note' ? null : what === 'bowl-temperature' && value !== null ? tempIn(value) : value,
        };
      }}
    />
  );
}

const BATCH_FIELDS: FieldSpec[] = [
  { name: 'batchName', at: 'batch.name', label: 'Name of the batch', type: 'text', hint: 'Fiji 68 %' },
  {
    name: 'targetMicron',
    at: 'batch.targetMicron',
    label: 'Target fineness',
    type: 'number',
    unit: 'µm',
    optional: true,
  },
  {
    name: 'cocoaTargetPct',
    at: 'batch.cocoaTargetPct',
    label: 'Cocoa meant',
    type: 'number',
    unit: '%',
    optional: true,
  },
  { name: 'note', label: 'Note', type: 'text', optional: true },
];

function NewBatch({ view, onStarted }: { view: BenchView; onStarted: (code: string) => void }) {
  const { view: workshop } = useHere();
  const [routeId, setRouteId] = useState(view.waiting[0]?.routeId ?? workshop.routes[0]?.id ?? '');
  const candidates = [...view.waiting, ...view.elsewhere, ...view.pantry.filter(({ kind }) => kind === 'ingredient')];
  if (view.waiting.length + view.elsewhere.length === 0) {
    return (
      <Empty title="No nibs wait for the stones.">
        Winnow a load first, or receive nibs as a lot. Sugar and butter come from the pantry.
      </Empty>
    );
  }
  return (
    <>
      <h2 className="mb-3 text-2xl">A new batch</h2>
      <StepForm
        kind="charge"
        station="grind"
        draftId="grind.new"
        candidates={candidates}
        specs={BATCH_FIELDS}
        initial={{ targetMicron: { text: '20' } }}
        path="/api/ledger/steps"
        submit="Start the batch"
        pickTitle="What goes into the bowl first"
        head={<RouteChoice routeId={routeId} choose={setRouteId} />}
        finish={(values, sources) => ({
          note: values['note'] ?? '',
          sources,
          batch: {
            name: values['batchName'],
            routeId,
            ...(values['targetMicron'] === undefined ? {} : { targetMicron: values['targetMicron'] }),
            cocoaTargetPct: values['cocoaTargetPct'] ?? null,
          },
        })}
        onSaved={({ step }) => step.batchCode !== null && onStarted(step.batchCode)}
      />
    </>
  );
}

export function RouteChoice({ routeId, choose }: { routeId: string; choose: (id: string) => void }) {
  const { view } = useHere();
  const route = view.routes.find(({ id }) => id === routeId);
  return (
    <label className="label mt-4 block max-w-xl">
      Route
      <select className="entry" value={routeId} onChange={(event) => choose(event.target.value)}>
        {view.routes.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      {route && <span className="mt-1 block">{route.note}</span>}
    </label>
  );
}
