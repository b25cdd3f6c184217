import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { HoldingView, StepView } from '@wunsch/core/api/types';
import type { Command } from '@wunsch/core/commands';
import { WinnowRecord } from '../winnow/WinnowRecord';
import { LOSS_NAMES } from '@wunsch/core/ledger/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { askTakings, SALE_FIELDS, saleOf } from '../store/takings';
import { massUnitFor } from '@wunsch/core/units/mass';
import { isSure } from '../parts/asking';
import { METHODS } from '../temper/fields';
import { FIELDS, fieldsOf, keptG, type Fields, type FieldSpec } from '../entry/entry';
import { StepForm } from '../entry/StepForm';
import type { Entry } from '../entry/step-form';
import { draftOf, dropDraft, useKept } from '../parts/draft';
import { concernsLater, LaterSteps } from './LaterSteps';
import { send, useApi } from '../parts/api';
import { stepName, stepWords } from '../parts/log-words';
import { Code, Loading, Refusal, Section } from '../parts/pieces';
import { Verdict } from '../parts/Verdict';
import { MassUnitHere, useHere, useShow, useUnitOf } from '../parts/workshop';

/** One step: what moved, what it cost, all its versions; and its correction. */
export function StepPage() {
  const { id = '' } = useParams();
  const answer = useApi(`/api/ledger/steps/${encodeURIComponent(id)}`);
  const unit = useUnitOf([answer.data?.step.inMg ?? 0, answer.data?.step.goodMg ?? 0]);
  const show = useShow(unit);
  const [query] = useSearchParams();
  const typed = query.get('typed');
  const [correcting, setCorrecting] = useState(typed !== null);
  const view = answer.data;
  if (!view) return <Loading error={answer.error} />;
  const { step, versions } = view;
  const roastedAs = step.lines.find(({ holdingId, massMg }) => holdingId !== null && massMg > 0)?.code;
  const costs: [string, number][] = [
    ['What went in', step.cost.inputsMilli],
    ['Bought', step.cost.purchaseMilli],
    [`Labour, ${Math.round(step.minutes)} min`, step.cost.labourMilli],
    [`Energy, ${step.energyKwh.toFixed(2)} kWh`, step.cost.energyMilli],
    ['Husk sold', -step.cost.creditMilli],
    ['Paid by buyers', step.cost.revenueMilli],
    ['Lost with nothing to carry it', step.cost.lostMilli],
  ];
  return (
    <MassUnitHere value={unit}>
      <h1 className="text-4xl">{step.withdrawn ? `${stepName(step.kind)}, taken back` : stepName(step.kind)}</h1>
      <p className="mt-1 text-lg text-soft">
        {STATION_NAMES[step.station]}, {show.moment(step.at)}, {step.person}
        {step.machine !== null && `, ${step.machine}`}
        {step.batchCode !== null && (
          <>
            , batch <Code code={step.batchCode} />
          </>
        )}
      </p>
      <div className="mt-6 grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div>
          <Section title="What moved">
            {step.lines.length === 0 ? (
              <p className="text-soft">
                {step.withdrawn ? 'Nothing any more: it was taken back.' : stepWords(step, show)}
              </p>
            ) : (
              <table className="w-full text-left">
                <tbody>
                  {step.lines.map((line, index) => (
                    <tr key={index} className="border-t border-rule">
                      <td className="py-2">
                        {line.code !== null ? (
                          <Code code={line.code} kind={line.kind} />
                        ) : (
                          <span className="text-soft">
                            {line.loss === null
                              ? line.outside === 'supplier'
                                ? 'Supplier'
                                : 'Buyer'
                              : LOSS_NAMES[line.loss]}
                          </span>
                        )}
                      </td>
                      <td className="text-soft">{line.reason ?? line.name}</td>
                      <td className="text-right">
                        {line.pieces !== 0 && `${line.pieces > 0 ? '+' : '−'}${Math.abs(line.pieces)}`}
                      </td>
                      <td className="figure text-right">
                        {line.massMg !== 0 && `${line.massMg > 0 ? '+' : '−'}${show.mass(Math.abs(line.massMg))}`}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
            <Entered command={step.command as Command} />
            {step.overrides.map((row) => (
              <p key={row.gate} className="mt-3 rounded-md bg-crimson-wash px-4 py-2">
                <strong>{row.sentence}</strong> {row.person} went on: “{row.word}”.
              </p>
            ))}
          </Section>
          {step.kind === 'roast' && roastedAs != null && (
            <Link className="link mt-3 inline-flex min-h-11 items-center" to={`/roasting/load/${roastedAs}`}>
              How it was roasted: curve, figures, judgement
            </Link>
          )}
          {step.kind === 'winnow' && <WinnowRecord step={step} />}
          {!step.withdrawn && (
            <Section title="Correct it" aside="the first version stays readable">
              {correcting ? (
                <Correct step={step} typed={typed} />
              ) : (
                <button type="button" className="button" onClick={() => setCorrecting(true)}>
                  Correct or take back
                </button>
              )}
            </Section>
          )}
          {versions.length > 1 && (
            <Section title="Versions" aside={`${versions.length} of them`}>
              <ol className="rows">
                {versions.map((version, index) => (
                  <li key={version.id} className="py-2">
                    <span className={index === 0 ? 'font-semibold' : 'text-soft'}>{stepWords(version, show)}</span>
                    <span className="block text-sm text-soft">
                      written {show.moment(version.recordedAt)} by {version.person}
                      {version.reason !== null && `: “${version.reason}”`}
                    </span>
                  </li>
                ))}
              </ol>
            </Section>
          )}
        </div>
        <div>
          {view.judgement && <Verdict title="Yield" judgement={view.judgement} stepId={step.id} />}
          <Section title="Cost">
            <ul className="rows">
              {costs
                .filter(([, milli]) => milli !== 0)
                .map(([name, milli]) => (
                  <li key={name} className="flex justify-between gap-4 py-1.5">
                    <span>{name}</span>
                    <span className="figure">{show.money(milli)}</span>
                  </li>
                ))}
            </ul>
            {costs.every(([, milli]) => milli === 0) && <p className="text-soft">None.</p>}
          </Section>
        </div>
      </div>
    </MassUnitHere>
  );
}

/** Temperatures, dates and words of an entry that move no grams. */
function Entered({ command }: { command: Command }) {
  const show = useShow();
  const rows: [string, string][] =
    command.kind === 'temper'
      ? [
          ['Method', METHODS.find(({ value }) => value === command.method)?.label ?? command.method],
          ['Melted out at', show.temp(command.meltC)],
          ['Cooled to', show.temp(command.coolC)],
          ['Worked at', show.temp(command.workC)],
          ['Temper test', TEST_WORDS[command.test]],
        ]
      : command.kind === 'pack'
        ? [
            ['Code on the label', command.labelCode],
            ['Best before', command.bestBefore],
          ]
        : [];
  return (
    <>
      {rows.length > 0 && (
        <dl className="mt-3 grid grid-cols-[10rem_1fr] gap-y-1">
          {rows.map(([name, value]) => (
            <div key={name} className="contents">
              <dt className="text-soft">{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      )}
      {'note' in command && command.note !== '' && <p className="mt-3">{command.note}</p>}
    </>
  );
}

const TEST_WORDS = { set: 'set in five minutes', slow: 'set slowly', failed: 'failed', none: 'not tested' } as const;

type Loose = Record<string, unknown> & {
  sources?: { holdingId: string; massG?: number; pieces?: number; takings?: number }[];
  packaging?: { holdingId: string; pieces: number }[];
};

/** @param typed a draft of somebody who was too late: their figures stand over those that were saved */
function Correct({ step, typed }: { step: StepView; typed: string | null }) {
  const { view, personId } = useHere();
  const show = useShow();
  const navigate = useNavigate();
  const [reason, setReason, forget] = useKept(`correct.${step.id}.why`, '');
  const [error, setError] = useState<unknown>(null);
  const command = step.command as Loose;
  const massUnit = massUnitFor(Math.max(step.inMg, step.goodMg), view.settings.massSystem);
  const inputs = step.lines.filter((line) => line.massMg < 0 && line.holdingId !== null);
  const taken = step.kind === 'discharge' || !command.sources ? [] : inputs;
  const initial: Fields = {
    ...fieldsOf(command, step.kind, massUnit, {
      temperature: view.settings.temperatureUnit,
      heavy: show.heavy,
    }),
    ...(typed === null ? {} : draftOf<Entry>(typed)?.fields),
  };
  command.sources?.forEach((source) => {
    initial[`take.${source.holdingId}`] =
      source.pieces === undefined ? keptG(source.massG ?? 0, massUnit) : { text: String(source.pieces) };
    if (source.takings !== undefined) initial[`takings.${source.holdingId}`] = { text: String(source.takings) };
  });
  // Each component of the packaging that was used, to be counted again.
  const components = (command.packaging ?? []).map(({ holdingId }): FieldSpec => ({
    name: `with.${holdingId}`,
    label: `${step.lines.find((line) => line.holdingId === holdingId)?.name ?? 'Packaging'} used`,
    type: 'pieces',
    optional: true,
  }));
  for (const { holdingId, pieces } of command.packaging ?? []) initial[`with.${holdingId}`] = { text: String(pieces) };
  const takeBack = async (): Promise<void> => {
    const what = `${stepWords(step, show)} will count no more. It stays readable.`;
    if (!(await isSure({ title: 'Take this step back?', what, yes: 'Take it back' }))) return;
    try {
      await send('POST', `/api/ledger/steps/${step.id}/withdraw`, {
        personId,
        reason: reason.trim() === '' ? 'Entered by mistake' : reason,
      });
      forget();
      void navigate(-1);
    } catch (failure) {
      setError(failure);
    }
  };
  return (
    <div>
      <label className="label mb-5 block max-w-xl">
        Why is it corrected?
        <input
          className="entry"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          placeholder={typed === null ? 'The tray was on the scale' : 'Two of us weighed it'}
        />
      </label>
      <StepForm
        kind={step.kind}
        station={step.station === 'pantry' || step.station === 'store' ? null : step.station}
        draftId={`correct.${step.id}`}
        initial={{ ...initial, '~minutes': { text: String(step.minutes) }, '~kwh': { text: String(step.energyKwh) } }}
        initialPicked={taken.map(({ holdingId }) => holdingId ?? '')}
        candidates={taken.map((line): HoldingView => lineHolding(line, step))}
        machineId={step.machineId}
        path={`/api/ledger/steps/${step.id}/correct`}
        submit="Save the correction"
        onSaved={() => {
          forget();
          if (typed !== null) dropDraft(typed);
        }}
        refused={(refusal, body) =>
          concernsLater(refusal) && (
            <LaterSteps
              key={JSON.stringify(body)}
              stepId={step.id}
              body={body}
              done={(saved) => {
                forget();
                void navigate(`/step/${saved.id}`);
              }}
            />
          )
        }
        extra={(entry) => ({
          reason,
          ...((entry.fields['~at']?.text ?? '') === '' ? { at: new Date(step.at).toISOString() } : {}),
        })}
        {...(step.kind === 'sell' ? { specs: SALE_FIELDS, ask: askTakings(view.settings.currency) } : {})}
        {...(components.length > 0 ? { specs: [...(FIELDS.pack ?? []), ...components] } : {})}
        finish={(values, sources) => {
          if (step.kind === 'sell') {
            const { use, orderId } = command as { use?: string; orderId?: string };
            return {
              ...(use === undefined ? {} : { use }),
              ...(orderId === undefined ? {} : { orderId }),
              ...saleOf(values, sources),
            };
          }
          const { kind: _, sources: _s, packaging, ...whole } = command;
          // What a field was emptied of is not kept: only what no field of the form says.
          const asked = new Set((FIELDS[step.kind] ?? []).map(({ name }) => name.split('.')[0]));
          const kept = Object.fromEntries(Object.entries(whole).filter(([name]) => !asked.has(name)));
          const given = Object.fromEntries(Object.entries(values).filter(([name]) => !name.startsWith('with.')));
          return {
            ...kept,
            ...given,
            // Passes add up to the nibs: corrected nibs were not weighed pass by pass.
            ...(step.kind === 'winnow' && given['nibsG'] !== (whole as Record<string, unknown>)['nibsG']
              ? { passes: [] }
              : {}),
            ...(command.sources ? { sources } : {}),
            ...(packaging
              ? {
                  // A component that is emptied was not used.
                  packaging: packaging.flatMap((line) => {
                    const pieces = Number(values[`with.${line.holdingId}`] ?? 0);
                    return pieces > 0 ? [{ ...line, pieces }] : [];
                  }),
                }
              : {}),
          };
        }}
      />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <button type="button" className="button button-quiet text-crimson!" onClick={() => void takeBack()}>
          Take the whole step back
        </button>
        <Link className="link text-sm" to="/">
          Leave it as it is
        </Link>
      </div>
      <Refusal error={error} />
    </div>
  );
}

/** What was taken, as something to take again. */
function lineHolding(line: StepView['lines'][number], step: StepView): HoldingView {
  return {
    id: line.holdingId ?? '',
    code: line.code ?? '',
    kind: line.kind ?? 'lot',
    name: line.name,
    place: step.station,
    routeId: null,
    batchId: null,
    batchCode: step.batchCode,
    materialId: null,
    massMg: -line.massMg,
    pieces: -line.pieces,
    freeMg: -line.massMg,
    since: step.at,
    valueMilli: 0,
    perKgMilli: 0,
    perPieceMilli: 0,
    family: '',
    lots: [],
    allergens: [],
    bestBefore: null,
    marks: [],
  };
}
