import { Check, Scales } from '@phosphor-icons/react';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { StepView } from '@wunsch/core/api/types';
import type { WeighingView } from '@wunsch/core/api/recipe';
import { judgeLabel } from '@wunsch/core/recipe/correct';
import { massUnitFor } from '@wunsch/core/units/mass';
import { GatePanel, gatesIn, type Answer } from '../entry/GatePanel';
import { ask, refresh, send, useApi } from '../parts/api';
import { newKey } from '../parts/draft';
import { Box } from '../parts/fields';
import { Empty, Figure, Loading, Refusal } from '../parts/pieces';
import { PutOn } from '../parts/PutOn';
import { NOBODY, useSave } from '../parts/save';
import { useScale } from '../parts/scale';
import { useHere, useShow } from '../parts/workshop';
import { Quantity } from './Quantity';

type Line = WeighingView['lines'][number];

/** One ingredient after the other on the scale: the right tub, the right grams, and what it comes to. */
export function WeighingPage() {
  const { id = '' } = useParams();
  const answer = useApi<WeighingView>(`/api/recipe/weighings/${encodeURIComponent(id)}`);
  if (!answer.data) return <Loading error={answer.error} />;
  return answer.data.endedAt === null ? <Running run={answer.data} /> : <Ended run={answer.data} />;
}

function Ended({ run }: { run: WeighingView }) {
  const show = useShow();
  return (
    <Empty
      title={
        run.stepId === null
          ? `${run.name}: everything is back in its tub.`
          : `${run.name} is in the bowl${run.stepBatchCode === null ? '' : ` as ${run.stepBatchCode}`}.`
      }
      action={
        <a
          className="button button-main"
          href={run.stepBatchCode === null ? '/recipes' : `/station/grind?batch=${run.stepBatchCode}`}
        >
          {run.stepBatchCode === null ? 'To the recipes' : 'To the stones'}
        </a>
      }
    >
      {run.stepId === null
        ? 'Nothing was charged.'
        : `${show.mass(run.weighedG * 1000)} went in, ${run.figures.cocoaPct.toFixed(1)} % cocoa.`}
    </Empty>
  );
}

function Running({ run }: { run: WeighingView }) {
  const { view, personId } = useHere();
  const unit = massUnitFor(
    Math.max(...run.lines.map(({ plannedG, weighedG }) => Math.max(plannedG, weighedG))) * 1000,
    view.settings.massSystem,
  );
  const show = useShow(unit);
  const navigate = useNavigate();
  const open = run.lines.find(({ state }) => state === 'open' || state === 'begun');
  const [chosen, setChosen] = useState<string | null>(null);
  const line =
    run.lines.find(({ ingredient }) => ingredient === chosen) ??
    run.lines.find(({ state }) => state === 'over') ??
    open ??
    null;
  const { busy, error, run: save, fail } = useSave();
  const over = run.lines.filter(({ state }) => state === 'over');
  const label = run.labelPct === null ? null : judgeLabel(run.labelPct, run.planned.cocoaPct);
  const url = `/api/recipe/weighings/${run.id}`;
  const act = (path: string, body: object = {}): void => {
    if (personId === null) return fail(NOBODY);
    void save(() => send('POST', `${url}/${path}`, { personId, ...body }, newKey()));
  };
  const finish = (overrides: Answer[] = []): void => {
    if (personId === null) return fail(NOBODY);
    void save(async () => {
      const { data } = await send<{ step: StepView }>('POST', `${url}/finish`, {
        personId,
        minutes: Math.min(600, Math.round((Date.now() - run.startedAt) / 60_000)),
        overrides,
      });
      await navigate(`/station/grind?batch=${data.step.batchCode ?? ''}`);
    });
  };
  const gates = gatesIn(error);
  const person = view.people.find(({ id }) => id === personId)?.name ?? 'you';
  return (
    <>
      <div className="mb-4 flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-3xl">
          Weighing {run.name}
          {run.batchCode !== null && ` into ${run.batchCode}`}
        </h1>
        <p className="text-sm text-soft">
          {run.person}, {show.moment(run.startedAt)}
          {run.machine !== null && `, for ${run.machine}`}
        </p>
      </div>
      <div className="grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="min-w-0">
          {over.length > 0 && (
            <section role="alert" className="mb-5 rounded-md bg-ripe-wash px-4 py-3">
              <p className="figure text-[1.35rem] leading-snug">
                {over.map((row) => `${row.name} is ${show.mass((row.weighedG - row.plannedG) * 1000)} over`).join('; ')}
                .
              </p>
              <p className="mt-1 text-sm">
                As planned for the rest it would be {run.planned.cocoaPct.toFixed(1)} % cocoa. Work out the rest again
                to keep the shares, or take the weighing back.
              </p>
              <div className="mt-3 flex flex-wrap gap-3">
                <button type="button" className="button button-main" disabled={busy} onClick={() => act('replan')}>
                  Work out the rest again
                </button>
                {over.map((row) => {
                  const last = row.weighed.at(-1);
                  return (
                    last && (
                      <button
                        key={row.ingredient}
                        type="button"
                        className="button"
                        disabled={busy}
                        onClick={() => act('undo', { recordId: last.recordId })}
                      >
                        Take {show.mass(last.massG * 1000)} back
                      </button>
                    )
                  );
                })}
              </div>
            </section>
          )}
          {line && line.state !== 'over' ? (
            <OnTheScale key={line.ingredient} line={line} run={run} unit={unit} />
          ) : (
            over.length === 0 && <p className="figure text-2xl">All of it is weighed.</p>
          )}
          {run.replanned.map((why, index) => (
            <p key={index} className="mt-3 text-sm text-soft">
              {why}
            </p>
          ))}
          {gates.length > 0 ? (
            <GatePanel gates={gates} person={person} busy={busy} goOn={finish} />
          ) : (
            <Refusal error={error} />
          )}
        </div>
        <div>
          <div className="grid grid-cols-2 gap-x-6 gap-y-4" aria-live="polite">
            <Figure
              small
              label="Weighed"
              value={show.mass(run.weighedG * 1000)}
              note={`of ${show.mass(run.plannedG * 1000)}`}
            />
            <Figure
              small
              label="It will be"
              value={`${run.planned.cocoaPct.toFixed(1)} %`}
              note={
                label?.tone === 'watch' ? (
                  <strong className="text-crimson">the label says {run.labelPct} %</strong>
                ) : (
                  'cocoa, weighed as planned'
                )
              }
            />
          </div>
          <ol className="rows mt-4">
            {run.lines.map((row) => (
              <li key={row.ingredient} className="py-1">
                <button
                  type="button"
                  className="flex w-full items-center gap-3 rounded-md py-1 text-left"
                  aria-current={row === line ? 'step' : undefined}
                  onClick={() => setChosen(row.ingredient)}
                >
                  <span
                    className={`flex size-7 shrink-0 items-center justify-center rounded-full border-2 ${row.state === 'done' ? 'border-leaf text-leaf' : row.state === 'over' ? 'border-crimson text-crimson' : 'border-rule'}`}
                  >
                    {row.state === 'done' && <Check size={16} weight="bold" aria-label="weighed" />}
                    {row.state === 'over' && <span aria-label="too much">!</span>}
                  </span>
                  <span className={`min-w-0 flex-1 ${row === line ? 'font-bold' : ''}`}>
                    <span className="block truncate">{row.name}</span>
                    <span className="block text-sm font-normal text-soft">
                      {row.weighed.map(({ code, massG }) => `${code} ${show.mass(massG * 1000)}`).join(', ') ||
                        'not weighed yet'}
                    </span>
                  </span>
                  <span className="figure text-right text-lg whitespace-nowrap">{show.mass(row.plannedG * 1000)}</span>
                </button>
                {row.weighed.length > 0 && row.state !== 'over' && row === line && (
                  <button
                    type="button"
                    className="button button-quiet text-sm"
                    disabled={busy}
                    onClick={() => act('undo', { recordId: row.weighed.at(-1)?.recordId })}
                  >
                    Take the last weighing back
                  </button>
                )}
              </li>
            ))}
          </ol>
          <div className="mt-5 flex flex-wrap gap-3">
            <button
              type="button"
              className={`button ${open ? '' : 'button-main'}`}
              disabled={busy || run.weighedG <= 0}
              onClick={() => finish()}
            >
              {open ? 'Into the bowl as it is' : 'Into the bowl'}
            </button>
            <button type="button" className="button button-quiet" disabled={busy} onClick={() => act('put-back')}>
              Put everything back
            </button>
          </div>
          {open && run.weighedG > 0 && (
            <p className="mt-2 text-sm text-soft">
              As it is now: {run.figures.cocoaPct.toFixed(1)} % cocoa. What is missing can be added to the bowl later.
            </p>
          )}
        </div>
      </div>
    </>
  );
}

/** One ingredient: its tub is checked, the scale is read against what is wanted, a press takes it. */
function OnTheScale({ line, run, unit }: { line: Line; run: WeighingView; unit: ReturnType<typeof massUnitFor> }) {
  const { personId } = useHere();
  const show = useShow(unit);
  const reading = useScale(true);
  const [tub, setTub] = useState<string | null>(null);
  const [code, setCode] = useState('');
  const [tareG, setTareG] = useState(0);
  const [handG, setHandG] = useState<number | null>(null);
  const { busy, error, run: save, fail } = useSave();
  const stock = line.stock.find((row) => row.code === tub) ?? null;
  const leftG = line.plannedG - line.weighedG;
  // What this tub still has to give: all of what is missing, or all that it has.
  const wantedG = Math.min(leftG, stock?.freeG ?? leftG);
  const netG = reading === null || reading.unplugged ? null : reading.massG - tareG;
  const scaleUnit = Math.max(0, Math.min(1.25, wantedG > 0 && netG !== null ? netG / wantedG : 0));
  const band = wantedG > 0 ? Math.min(1, line.toleranceG / wantedG) : 1;
  const inside = netG !== null && Math.abs(netG - wantedG) <= line.toleranceG;
  const tooMuch = netG !== null && netG > wantedG + line.toleranceG;
  const check = (typed: string): void => {
    if (typed.trim() === '') return;
    void save(async () => {
      const found = await ask<{ code: string }>(`/api/recipe/weighings/${run.id}/check`, {
        ingredient: line.ingredient,
        code: typed.trim(),
      });
      setTub(found.code);
      setCode('');
    });
  };
  const take = (massG: number, by: 'scale' | 'hand'): void => {
    if (personId === null) return fail(NOBODY);
    if (tub === null) return fail('First the tub: scan or type its code, or press it.');
    void save(async () => {
      await send(
        'POST',
        `/api/recipe/weighings/${run.id}/weighed`,
        { personId, ingredient: line.ingredient, code: tub, massG: Number(massG.toFixed(3)), by },
        newKey(),
      );
      setTareG(reading?.massG ?? 0);
      setHandG(null);
      setTub(null);
      await refresh();
    });
  };
  return (
    <section aria-label={`Weigh ${line.name}`}>
      <h2 className="text-2xl">{line.name}</h2>
      {line.allergens.length > 0 && <p className="font-semibold text-crimson">Allergen: {line.allergens.join(', ')}</p>}
      <div className="mt-3">
        <p className="label mb-1">
          {tub === null ? 'From which tub? Scan its code, type it, or press it' : 'From this tub'}
        </p>
        <div className="flex flex-wrap items-center gap-2">
          {line.stock.slice(0, 6).map((row, index) => (
            <button
              key={row.holdingId}
              type="button"
              className="chip"
              aria-pressed={row.code === tub}
              onClick={() => setTub(row.code)}
            >
              <span className="code">{row.code}</span> {show.mass(row.freeG * 1000)}
              {index === 0 && line.stock.length > 1 && ' · use first'}
              {row.bestBefore !== null && ` · to ${row.bestBefore}`}
            </button>
          ))}
          <Box
            className="w-40"
            label={<span className="sr-only">Code of the tub</span>}
            value={code}
            placeholder="scan or type"
            onChange={setCode}
            onEnter={() => check(code)}
          />
          {code !== '' && (
            <button type="button" className="button" disabled={busy} onClick={() => check(code)}>
              Check
            </button>
          )}
        </div>
        {line.stock.length === 0 && <p className="mt-2 font-semibold text-crimson">None of it is free in the house.</p>}
      </div>
      <div className="mt-5 flex flex-wrap items-end justify-between gap-x-8 gap-y-2">
        <div>
          <p className="label">On the scale</p>
          <p
            className={`figure text-6xl tabular-nums ${tooMuch ? 'text-crimson' : inside ? 'text-leaf' : ''}`}
            aria-live="off"
          >
            {netG === null ? '–' : show.mass(Math.round(netG * 1000))}
          </p>
        </div>
        <div className="text-right">
          <p className="label">{tooMuch ? 'Too much by' : 'Still to add'}</p>
          <p className="figure text-4xl">
            {netG === null ? show.mass(wantedG * 1000) : show.mass(Math.abs(wantedG - netG) * 1000)}
          </p>
        </div>
      </div>
      <div aria-hidden className="relative mt-3 h-8 rounded-md bg-sunk">
        <span
          className="absolute inset-y-0 bg-leaf-wash"
          style={{
            left: `${80 * (1 - band)}%`,
            width: `${Math.min(160 * band, 20 + 80 * band)}%`,
          }}
        />
        <span
          className={`absolute inset-y-1.5 left-0 rounded ${tooMuch ? 'bg-crimson' : 'bg-ripe'}`}
          style={{ width: `${(100 * scaleUnit) / 1.25}%` }}
        />
        <span className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: '80%' }} />
      </div>
      <p className="mt-1 text-sm text-soft">
        {show.mass(wantedG * 1000)} wanted{stock !== null && stock.freeG < leftG && ', all that this tub has'}; right
        within {show.mass(line.toleranceG * 1000)}.{reading?.simulated && ' The scale is simulated.'}
      </p>
      <div className="mt-4 flex flex-wrap items-end gap-3">
        <button
          type="button"
          className="button"
          disabled={reading === null}
          onClick={() => setTareG(reading?.massG ?? 0)}
        >
          Tare
        </button>
        <button
          type="button"
          className="button button-main"
          disabled={busy || netG === null || netG <= 0 || reading?.stable !== true}
          onClick={() => netG !== null && take(netG, 'scale')}
        >
          <Scales size={20} aria-hidden />{' '}
          {reading?.stable === false
            ? 'Still moving …'
            : netG === null || netG <= 0
              ? 'Take it'
              : `Take ${show.mass(netG * 1000)}`}
        </button>
        <Quantity className="w-36" label="Or by hand" mass={unit} value={handG} onValue={setHandG} />
        {handG !== null && handG > 0 && (
          <button type="button" className="button" disabled={busy} onClick={() => take(handG, 'hand')}>
            Take {show.mass(handG * 1000)}
          </button>
        )}
      </div>
      {reading?.simulated !== false && <PutOn />}
      <Refusal error={error} />
    </section>
  );
}
