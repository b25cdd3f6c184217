import { useState, type ReactNode } from 'react';
import type { ProgramVersion } from '@wunsch/core/api/roast';
import type { Program } from '@wunsch/core/roast/records';
import { SCHOOLS } from '@wunsch/core/work/roasting-words';
import { useApi } from '../parts/api';
import { Box, Chips } from '../parts/fields';
import { Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { SCHOOL_NAMES } from './words';

interface Props {
  program: Program;
  set: (part: Partial<Program>) => void;
}

/** School, reason, and the beans that a program suits. */
export function WhatFor({ program, set }: Props) {
  return (
    <Section title="What it is for">
      <Chips
        legend="School"
        options={SCHOOLS.map((school) => [school, SCHOOL_NAMES[school]] as const)}
        chosen={[program.school]}
        choose={([school]) => set({ school: school ?? 'own' })}
      />
      <div className="mt-3">
        <Chips
          legend="Of"
          options={[
            ['bean', 'whole beans'],
            ['nib', 'nibs'],
          ]}
          chosen={[program.kind]}
          choose={([kind]) => set({ kind: kind ?? 'bean' })}
        />
      </div>
      <LongBox label="Why it is as it is" value={program.reason} onChange={(reason) => set({ reason })} />
      <Suits program={program} set={set} />
      <LongBox label="Notes" value={program.note} onChange={(note) => set({ note })} />
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

function LongBox({ label, value, onChange }: { label: ReactNode; value: string; onChange: (text: string) => void }) {
  return (
    <label className="label mt-3 block">
      {label}
      <textarea
        className="entry min-h-24! text-base! text-ink"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}

/** Families of beans that a program suits, and why. */
function Suits({ program, set }: { program: Program; set: (part: Partial<Program>) => void }) {
  const { data } = useApi('/api/trace/lots');
  const [family, setFamily] = useState('');
  const [why, setWhy] = useState('');
  const known = [...new Set((data?.lots ?? []).map(({ family: name }) => name).filter((name) => name !== ''))];
  return (
    <div className="mt-3">
      <p className="label">Suits</p>
      <ul className="text-sm">
        {program.suits.map((row, index) => (
          <li key={row.family} className="flex items-center justify-between gap-2">
            <span>
              {row.family}
              {row.why !== '' && `: ${row.why}`}
            </span>
            <button
              type="button"
              className="button button-quiet"
              onClick={() => set({ suits: program.suits.filter((_, i) => i !== index) })}
            >
              Leave out
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-1.5">
        {known
          .filter((name) => name !== family && !program.suits.some((row) => row.family === name))
          .slice(0, 8)
          .map((name) => (
            <button key={name} type="button" className="chip text-sm" onClick={() => setFamily(name)}>
              {name}
            </button>
          ))}
      </div>
      <Box label="Beans" value={family} onChange={setFamily} placeholder="country, region" />
      <Box label="Why" value={why} onChange={setWhy} />
      <button
        type="button"
        className="button mt-2"
        disabled={family.trim() === ''}
        onClick={() => {
          set({
            suits: [...program.suits.filter((row) => row.family !== family.trim()), { family: family.trim(), why }],
          });
          setFamily('');
          setWhy('');
        }}
      >
        Add
      </button>
    </div>
  );
}
