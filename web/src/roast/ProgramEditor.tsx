import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { ProgramVersion } from '@wunsch/core/api/roast';
import { checkProgram, layerOf, layerWords, withSplit, without } from '@wunsch/core/roast/program';
import type { Program } from '@wunsch/core/roast/records';
import { fitWords } from '@wunsch/core/roast/fit';
import { send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, Chips } from '../parts/fields';
import { Caution, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { useWorked } from '../parts/worked';
import { roasting, useFit, useRoasters } from './compute';
import { Versions, WhatFor } from './ProgramAbout';
import { Figures, NumberCell, StepsTable, type Texts, type Typed } from './ProgramParts';
import { ProgramLine } from './ProgramLine';
import { RoastingNav } from './RoastingNav';

interface Sheet {
  program: Program;
  /** Figures as they are typed, by field; what of them can be read is in the program already. */
  texts: Texts;
}

/** Name of the draft of a program's version. */
export const programDraft = (id: string, version: number): string => `program.${id}.${version}`;

/** A program drawn and written: what is set, and what the beans would do. */
export function ProgramEditor({
  id,
  version,
  base,
  versions,
  onClear,
}: {
  id: string | null;
  version: number;
  base: Program;
  versions: readonly ProgramVersion[];
  /** The changes were saved or thrown away. */
  onClear?: () => void;
}) {
  const show = useShow();
  const navigate = useNavigate();
  const {
    personId,
    view: { settings },
  } = useHere();
  const draft = useDraft<Sheet>(programDraft(id ?? `new.${base.name}`, version), () => ({ program: base, texts: {} }));
  const { program, texts } = draft.value;
  const { busy, error, run, fail } = useSave();
  const roasters = useRoasters();
  const roaster =
    roasters?.find((row) => row.id === program.roasterId) ?? (roasters ? (roasters[0] ?? null) : undefined);
  const fit = useFit(roaster, program.kind === 'nib');
  const [moisture, setMoisture] = useState(7);
  const [bases, setBases] = useState(() => [100, 110, 120].map((c) => Math.round(show.tempOut(c))).join(', '));
  const wanted = bases
    .split(/[,; ]+/)
    .flatMap((text) => (Number(text) > 0 ? [show.tempIn(Number(text))] : []))
    .slice(0, 6);
  const usualMm = layerOf(program.loadG, roaster?.facts ?? null);
  const [layer, setLayer] = useState<number | null>(null);
  const load = { massG: program.loadG, layerMm: layer ?? usualMm };
  const start = { beanC: 20, moisture: moisture / 100 };
  const band = useWorked(
    fit ? JSON.stringify([program.steps, program.preheatC, load, start, wanted, fit.loads.length, roaster?.id]) : null,
    async () => {
      if (!fit) throw new Error('no fit yet');
      return roasting().band({ steps: program.steps, preheatC: program.preheatC }, load, fit, start, wanted);
    },
    'roast-band',
  );
  /** What was pressed or dragged overrules how a figure was typed. */
  const set = (part: Partial<Program>): void =>
    draft.set(({ program: now, texts: old }) => ({
      program: { ...now, ...part },
      texts: Object.fromEntries(Object.entries(old).filter(([, { bad }]) => bad)),
    }));
  /** Takes a typed figure: what it says goes into the program, how it is typed stays in its field. */
  const type =
    (read: (value: number | null) => Partial<Program>) =>
    (name: string, typed: Typed, value: number | null): void => {
      const part = typed.bad ? {} : read(value);
      draft.set(({ program: now, texts: old }) => ({
        program: { ...now, ...part },
        texts: { ...old, [name]: typed },
      }));
    };
  /** What is drawn overrules what was typed. */
  const setSteps = (steps: Program['steps']): void =>
    draft.set(({ program: now, texts: old }) => ({
      program: { ...now, steps },
      texts: Object.fromEntries(Object.entries(old).filter(([name]) => !name.startsWith('step.'))),
    }));
  const newest = versions.at(-1)?.version ?? version;
  const unread = Object.values(texts).filter(({ bad }) => bad).length;
  const save = async (asNew: boolean): Promise<void> => {
    if (personId === null) return fail(NOBODY);
    if (unread > 0) return fail('Look again at the figures that cannot be read.');
    const body = { personId, program: { ...program, roasterId: program.roasterId ?? roaster?.id ?? null } };
    await run(async () => {
      const { data } =
        id === null || asNew
          ? await send('POST', '/api/roast/programs', body, draft.key)
          : await send('POST', `/api/roast/programs/${id}/versions`, { ...body, after: newest }, draft.key);
      draft.clear();
      onClear?.();
      void navigate(`/roasting/program/${data.id}`, { replace: true });
    });
  };
  const meanwhile = versions.at(-1);
  const warnings = checkProgram(program, roaster ?? null, settings);
  return (
    <div className="grid gap-10 lg:grid-cols-[minmax(0,1fr)_19rem]">
      <div className="min-w-0">
        <h1 className="sr-only">Roast program {program.name}</h1>
        <RoastingNav />
        <input
          className="w-full bg-transparent font-display text-4xl font-semibold outline-offset-4"
          aria-label="Name of the program"
          value={program.name}
          onChange={(event) => set({ name: event.target.value })}
        />
        <p className="mt-1 mb-4 text-soft">
          {id === null ? 'A starting point, not saved yet' : `Version ${version}`}
          {draft.touched && id !== null && ', changed and not saved'}. {program.reason}
        </p>
        {newest > version && meanwhile && (
          <p className="mb-4 rounded-md bg-ripe-wash px-4 py-2" role="status">
            Version {newest} was saved meanwhile by {meanwhile.person}, {show.moment(meanwhile.at)}. What you changed in
            version {version} is kept here: save it as version {newest + 1}, or throw it away to see theirs.
          </p>
        )}
        <Figures band={band} massG={program.loadG} moisture={moisture} />
        <div className="mt-4">
          <ProgramLine steps={program.steps} change={setSteps} band={band} />
        </div>
        <p className="label">
          Leaf green: what the roaster is set to, to be dragged. Ink: the beans as they would go; the band holds eight
          in ten such loads. Dotted: the air.
        </p>
        <StepsTable
          steps={program.steps}
          texts={texts}
          change={(steps, typed) => draft.set(({ program: now }) => ({ program: { ...now, steps }, texts: typed }))}
          split={(index) => setSteps(withSplit(program.steps, index))}
          remove={(index) => setSteps(without(program.steps, index))}
        />
        <Refusal error={error} />
        <div className="mt-6 flex flex-wrap gap-3">
          <button type="button" className="button button-main text-lg" disabled={busy} onClick={() => void save(false)}>
            {id === null ? 'Save the program' : `Save as version ${newest + 1}`}
          </button>
          {id !== null && (
            <button type="button" className="button" disabled={busy} onClick={() => void save(true)}>
              Save as a new program
            </button>
          )}
          {draft.touched && (
            <button
              type="button"
              className="button button-quiet"
              onClick={() => {
                draft.clear();
                onClear?.();
              }}
            >
              Throw the changes away
            </button>
          )}
        </div>
      </div>
      <aside aria-label="Load, roaster and cautions" className="min-w-0">
        <Section title="Load">
          <div className="grid grid-cols-2 gap-4">
            <NumberCell
              label="Beans in it"
              unit={show.heavy}
              name="load"
              texts={texts}
              value={Math.round(show.heavyFromGrams(program.loadG) * 100) / 100}
              typed={type((value) => (value === null ? {} : { loadG: show.gramsFromHeavy(value) }))}
              least={0.01}
            />
            <NumberCell
              label="Water in them"
              unit="%"
              name="moisture"
              texts={texts}
              value={moisture}
              typed={type((value) => {
                if (value !== null) setMoisture(value);
                return {};
              })}
              least={1}
              most={25}
            />
          </div>
          <input
            type="range"
            className="mt-3 w-full"
            aria-label="Load, dragged"
            min={Math.min(100, roaster?.minG ?? 100)}
            max={Math.max(program.loadG, (roaster?.maxG ?? 10_000) * 1.15)}
            step={50}
            value={program.loadG}
            onChange={(event) => set({ loadG: Number(event.target.value) })}
          />
          {usualMm !== null && layer === null && (
            <p className="text-sm text-soft">
              On {roaster?.facts.trays} trays it lies {layerWords(usualMm)}.
            </p>
          )}
          <div className="mt-3 grid grid-cols-2 gap-4">
            <NumberCell
              label="Layer"
              unit="mm"
              name="layer"
              texts={texts}
              value={layer ?? (usualMm === null ? null : Math.round(usualMm))}
              optional
              typed={type((value) => {
                setLayer(value);
                return {};
              })}
              least={1}
              most={500}
            />
            <NumberCell
              label="Preheat to"
              unit={`°${show.tempOut(100) === 100 ? 'C' : 'F'}`}
              name="preheat"
              texts={texts}
              value={Math.round(10 * show.tempOut(program.preheatC)) / 10}
              typed={type((value) => (value === null ? {} : { preheatC: show.tempIn(value) }))}
            />
            <NumberCell
              label="Stir every"
              unit="min"
              name="stir"
              texts={texts}
              value={program.stirEveryMin}
              optional
              typed={type((stirEveryMin) => ({ stirEveryMin }))}
              least={0.5}
            />
            <NumberCell
              label="Cool for"
              unit="min"
              name="cool"
              texts={texts}
              value={program.coolMin}
              typed={type((value) => (value === null ? {} : { coolMin: value }))}
            />
            <Box label="Minutes above" value={bases} onChange={setBases} />
          </div>
        </Section>
        <Section title="How sure">
          <Chips
            legend="Roaster"
            options={(roasters ?? []).map((row) => [row.id, row.name] as const)}
            chosen={roaster ? [roaster.id] : []}
            choose={([roasterId]) => set({ roasterId: roasterId ?? null })}
          />
          <p className="mt-2 text-sm text-soft">
            {fit ? fitWords(fit, settings.temperatureUnit) : 'Reading the loads logged on it …'}
          </p>
        </Section>
        {warnings.map((text) => (
          <p key={text} className="mt-3 rounded-md bg-ripe-wash px-3 py-2 text-sm" role="note">
            {text}
          </p>
        ))}
        <WhatFor program={program} set={set} />
        <div className="mt-5 grid gap-3">
          <Caution>The line is a model of your roaster, not a promise: stay beside it, and believe your nose.</Caution>
          <Caution>
            A program is a kill step only if it was validated for this load; your food-safety plan decides.
          </Caution>
        </div>
        <Versions versions={versions} shown={version} takeUp={set} />
      </aside>
    </div>
  );
}
