import type { ProgramVersion } from '@wunsch/core/api/roast';
import { elementOf, shapeOf } from '@wunsch/core/fields/asked';
import { program, type Program } from '@wunsch/core/roast/records';
import { SCHOOLS } from '@wunsch/core/work/roasting-words';
import { useApi } from '../parts/api';
import { Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { Field, Rows, useTyped } from '../record/Field';
import { useRecordFields } from '../record/form';
import { typedOf } from '../record/typed';
import { SCHOOL_NAMES } from './words';

const suit = elementOf(shapeOf(program)['suits'] ?? program) ?? program;

/** School, reason, and the beans that a program suits. */
export function WhatFor() {
  return (
    <Section title="What it is for">
      <Field at="school" choices={SCHOOLS.map((school) => [school, SCHOOL_NAMES[school]] as const)} />
      <div className="mt-3">
        <Field at="kind" />
      </div>
      <Field at="reason" className="mt-3" />
      <Suits />
      <Field at="note" className="mt-3" />
    </Section>
  );
}

/** All versions, newest first; an earlier one can be taken up again. */
export function Versions({
  versions,
  shown,
  takeUp,
}: {
  versions: readonly ProgramVersion[];
  /** Version on the page. */
  shown: number;
  takeUp: (program: Program) => void;
}) {
  const show = useShow();
  if (versions.length < 2) return null;
  return (
    <Section title="Versions">
      <ol className="rows text-sm">
        {[...versions].reverse().map((row) => (
          <li key={row.version} className="flex items-center gap-3 py-1.5">
            <span className="flex-1">
              {row.version}, {show.day(row.at)}, {row.person}
              <span className="block text-soft">
                {row.program.steps
                  .map(({ setC, minutes }) => `${show.temp(setC)} ${Math.round(minutes)} min`)
                  .join(', ')}
              </span>
            </span>
            {row.version !== shown && (
              <button type="button" className="button button-quiet" onClick={() => takeUp(row.program)}>
                Take it up
              </button>
            )}
          </li>
        ))}
      </ol>
    </Section>
  );
}

/** Families of beans that a program suits, and why. */
function Suits() {
  const { form, units } = useRecordFields();
  const { data } = useApi('/api/trace/lots');
  const suits = useTyped<{ family: string; why: string }[]>('suits');
  const known = [...new Set((data?.lots ?? []).map(({ family }) => family).filter((family) => family !== ''))];
  const others = known.filter((family) => !suits.some((row) => row.family === family)).slice(0, 8);
  const add = (family: string): void => {
    const row = typedOf(suit, { family, why: '' }, units);
    form.setValue('suits', [...suits, row], { shouldDirty: true });
  };
  return (
    <div className="mt-3" role="group" aria-label="Suits">
      <p className="label">Suits</p>
      <Rows at="suits" columns="grid-cols-1! gap-1! [&>button]:mt-0 [&>button]:justify-self-start" add="Other beans">
        {(path) => (
          <>
            <Field at={`${path}.family`} />
            <Field at={`${path}.why`} />
          </>
        )}
      </Rows>
      <div className="mt-2 flex flex-wrap gap-1.5">
        {others.map((family) => (
          <button key={family} type="button" className="chip text-sm" onClick={() => add(family)}>
            {family}
          </button>
        ))}
      </div>
    </div>
  );
}
