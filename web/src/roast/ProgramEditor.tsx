import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { ProgramVersion } from '@wunsch/core/api/roast';
import { elementOf, shapeOf } from '@wunsch/core/fields/asked';
import { checkProgram, layerOf, layerWords, withSplit, without } from '@wunsch/core/roast/program';
import { USUAL_MOISTURE } from '@wunsch/core/roast/logged';
import { loadFacts, program as schema, programStep, type Program } from '@wunsch/core/roast/records';
import { fitWords } from '@wunsch/core/roast/fit';
import { send } from '../parts/api';
import { Box, Chips, NumberBox } from '../parts/fields';
import { typedNumber } from '../parts/number';
import { Caution, Refusal, Section } from '../parts/pieces';
import { somebody } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { useWorked } from '../parts/worked';
import { Field } from '../record/Field';
import { RecordFields, useReadable, useRecordForm } from '../record/form';
import { readFigure, typedOf } from '../record/typed';
import { roasting, useFit, useRoastersInUse } from './compute';
import { Versions, WhatFor } from './ProgramAbout';
import { ProgramName } from './ProgramName';
import { Figures, StepsTable } from './ProgramParts';
import { ProgramLine } from './ProgramLine';
import { RoastingNav } from './RoastingNav';
import { lastGood } from './program-read';

/** Water in stored beans, % with one decimal, where nobody says otherwise. */
const USUAL_PCT = Math.round(1000 * USUAL_MOISTURE) / 10;

const formId = (id: string, version: number): string => `program.${id}.${version}`;
/** Name of the draft of a program's version. */
export const programDraft = (id: string, version: number): string => `record.${formId(id, version)}`;

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
  const record = useRecordForm(formId(id ?? `new.${base.name}`, version), schema, () => base, true);
  const { form, units } = record;
  const readable = useReadable(record);
  const [good, setGood] = useState(base);
  const program = lastGood(readable, good);
  // What is drawn and worked out goes by the last figures that could be read.
  if (JSON.stringify(program) !== JSON.stringify(good)) setGood(program);
  const roasters = useRoastersInUse(program.roasterId);
  const roaster =
    roasters?.find((row) => row.id === program.roasterId) ?? (roasters ? (roasters[0] ?? null) : undefined);
  const fit = useFit(roaster, program.kind === 'nib');
  const [water, setWater] = useState(() => typedNumber(USUAL_PCT));
  const wet = readFigure(loadFacts.shape.moisturePct, water, units);
  const moisture = wet.value ?? USUAL_PCT;
  const [bases, setBases] = useState(() => [100, 110, 120].map((c) => Math.round(show.fromCelsius(c))).join(', '));
  const wanted = bases
    .split(/[,; ]+/)
    .flatMap((text) => (Number(text) > 0 ? [show.toCelsius(Number(text))] : []))
    .slice(0, 6);
  const usualMm = layerOf(program.loadG, roaster?.facts ?? null);
  const [layer, setLayer] = useState<string | null>(null);
  const deep = readFigure(loadFacts.shape.layerMm, layer ?? '', units);
  const load = { massG: program.loadG, layerMm: deep.value ?? usualMm };
  const start = { beanC: 20, moisture: moisture / 100 };
  const band = useWorked(
    fit ? JSON.stringify([program.steps, program.preheatC, load, start, wanted, fit.loads.length, roaster?.id]) : null,
    async () => {
      if (!fit) throw new Error('no fit yet');
      return roasting().band({ steps: program.steps, preheatC: program.preheatC }, load, fit, start, wanted);
    },
    'roast-band',
  );
  /** What was drawn, dragged or taken up stands in its fields. */
  const put = (part: Partial<Program>): void => {
    for (const [name, value] of Object.entries(part)) {
      const field = shapeOf(schema)[name];
      if (field) form.setValue(name, typedOf(field, value, units), { shouldDirty: true, shouldValidate: true });
    }
  };
  /** Steps as they are drawn; those that are as they were keep how they were typed. */
  const putSteps = (steps: Program['steps']): void => {
    const step = elementOf(shapeOf(schema)['steps'] ?? programStep) ?? programStep;
    const typed = steps.map((row) => {
      const was = program.steps.indexOf(row);
      return was < 0 ? typedOf(step, row, units) : (form.getValues(`steps.${was}`) as unknown);
    });
    form.setValue('steps', typed, { shouldDirty: true, shouldValidate: true });
  };
  const newest = versions.at(-1)?.version ?? version;
  const save = async (asNew: boolean): Promise<void> => {
    let kept = id;
    const saved = await record.submit(async (value, key) => {
      const body = {
        personId: somebody(personId),
        program: { ...value, roasterId: value.roasterId ?? roaster?.id ?? null },
      };
      const { data } =
        id === null || asNew
          ? await send('POST', '/api/roast/programs', body, key)
          : await send('POST', `/api/roast/programs/${id}/versions`, { ...body, after: newest }, key);
      kept = data.id;
    });
    if (!saved || kept === null) return;
    onClear?.();
    void navigate(`/roasting/program/${kept}`, { replace: true });
  };
  const meanwhile = versions.at(-1);
  const warnings = checkProgram(program, roaster ?? null, settings);
  return (
    <RecordFields record={record}>
      <div className="grid gap-10 lg:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="min-w-0">
          <h1 className="sr-only">Roast program {program.name}</h1>
          <RoastingNav />
          <ProgramName />
          <p className="mt-1 mb-4 text-soft">
            {id === null ? 'A starting point, not saved yet' : `Version ${version}`}
            {record.touched && id !== null && ', changed and not saved'}. {program.reason}
          </p>
          {newest > version && meanwhile && (
            <p className="mb-4 rounded-md bg-ripe-wash px-4 py-2" role="status">
              Version {newest} was saved meanwhile by {meanwhile.person}, {show.moment(meanwhile.at)}. What you changed
              in version {version} is kept here: save it as version {newest + 1}, or throw it away to see theirs.
            </p>
          )}
          <Figures band={band} massG={program.loadG} moisture={moisture} />
          <div className="mt-4">
            <ProgramLine steps={program.steps} change={putSteps} band={band} />
          </div>
          <p className="label">
            Leaf green: what the roaster is set to, to be dragged. Ink: the beans as they would go; the band holds eight
            in ten such loads. Dotted: the air.
          </p>
          <StepsTable
            count={program.steps.length}
            split={(index) => putSteps(withSplit(program.steps, index))}
            remove={(index) => putSteps(without(program.steps, index))}
          />
          <Refusal error={record.error} />
          <div className="mt-6 flex flex-wrap gap-3">
            <button
              type="button"
              className="button button-main text-lg"
              disabled={record.busy}
              onClick={() => void save(false)}
            >
              {id === null ? 'Save the program' : `Save as version ${newest + 1}`}
            </button>
            {id !== null && (
              <button type="button" className="button" disabled={record.busy} onClick={() => void save(true)}>
                Save as a new program
              </button>
            )}
            {record.touched && (
              <button
                type="button"
                className="button button-quiet"
                onClick={() => {
                  record.leave();
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
              <Field at="loadG" />
              <NumberBox label="Water in them" unit="%" value={water} problem={wet.problem} onChange={setWater} />
            </div>
            <input
              type="range"
              className="mt-3 w-full"
              aria-label="Load, dragged"
              min={Math.min(100, roaster?.minG ?? 100)}
              max={Math.max(program.loadG, (roaster?.maxG ?? 10_000) * 1.15)}
              step={50}
              value={program.loadG}
              onChange={(event) => put({ loadG: Number(event.target.value) })}
            />
            {usualMm !== null && layer === null && (
              <p className="text-sm text-soft">
                On {roaster?.facts.trays} trays it lies {layerWords(usualMm)}.
              </p>
            )}
            <div className="mt-3 grid grid-cols-2 gap-4">
              <NumberBox
                label="Layer"
                unit="mm"
                value={layer ?? (usualMm === null ? '' : typedNumber(Math.round(usualMm)))}
                problem={deep.problem}
                onChange={setLayer}
              />
              <Field at="preheatC" />
              <Field at="stirEveryMin" />
              <Field at="coolMin" />
              <Box label="Minutes above" value={bases} onChange={setBases} />
            </div>
          </Section>
          <Section title="How sure">
            <Chips
              legend="Roaster"
              options={(roasters ?? []).map((row) => [row.id, row.name] as const)}
              chosen={roaster ? [roaster.id] : []}
              choose={([roasterId]) => put({ roasterId: roasterId ?? null })}
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
          <WhatFor />
          <div className="mt-5 grid gap-3">
            <Caution>
              The line is a model of your roaster, not a promise: stay beside it, and believe your nose.
            </Caution>
            <Caution>
              A program is a kill step only if it was validated for this load; your food-safety plan decides.
            </Caution>
          </div>
          <Versions versions={versions} shown={version} takeUp={put} />
        </aside>
      </div>
    </RecordFields>
  );
}
