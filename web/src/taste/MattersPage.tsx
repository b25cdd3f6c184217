import { useState } from 'react';
import type { FactEffect } from '@wunsch/core/taste/matters';
import { formatDegrees } from '@wunsch/core/units/temperature';
import { useApi } from '../parts/api';
import { Chips } from '../parts/fields';
import { Caution, Empty, Loading, Section } from '../parts/pieces';
import { Overrule } from '../parts/Overrule';
import { useHere } from '../parts/workshop';
import { TasteHead } from './TasteNav';

const SAYS = { found: 'goes with the score', little: 'makes little', unknown: 'cannot tell' } as const;

/** What matters here: which logged facts go with the panel's score, bean by bean. */
export function MattersPage() {
  const { data, error } = useApi('/api/taste/matters');
  const [chosen, setChosen] = useState<string | null>(null);
  if (!data) return <Loading error={error} />;
  const bean = data.beans.find(({ family }) => family === chosen) ?? data.beans[0];
  return (
    <>
      <TasteHead title="What matters here">
        Over all batches of a bean: which of what was logged goes with what the panel said.
      </TasteHead>
      {!bean ? (
        <Empty title="Nothing was tasted yet.">
          From eight tasted batches of one bean on, facts are held against scores.
        </Empty>
      ) : (
        <>
          <Chips
            legend="Bean"
            options={data.beans.map(({ family, verdict }) => [family, `${family} (${verdict.batches})`] as const)}
            chosen={[bean.family]}
            choose={([next]) => setChosen(next ?? null)}
          />
          <p className="figure mt-5 max-w-4xl text-[1.7rem] leading-tight">{bean.verdict.sentence}</p>
          <Overrule key={bean.family} judged="matters" subject={bean.family} said={bean.verdict.sentence} />
          {bean.verdict.caveat !== '' && <p className="mt-1 max-w-4xl">{bean.verdict.caveat}</p>}
          <Section
            title="Fact by fact"
            id="facts"
            aside={bean.verdict.together ? 'each with the others held' : 'each by itself: too few batches for more'}
          >
            <ul className="grid gap-x-10 md:grid-cols-2">
              {bean.verdict.facts.map((row) => (
                <Fact
                  key={row.fact}
                  row={row}
                  name={data.factNames[row.fact] ?? row.fact}
                  unit={data.units[row.fact] ?? ''}
                />
              ))}
            </ul>
          </Section>
          <div className="mt-6 max-w-3xl">
            <Caution>
              None of this was tried on purpose: what goes along with a score need not be its cause. A trial of one
              thing, made in an order by chance and tasted blind, can say so.
            </Caution>
          </div>
        </>
      )}
    </>
  );
}

const signed = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`;

function Fact({ row, name, unit }: { row: FactEffect; name: string; unit: string }) {
  const { says, effect, low, high, step, n, why, partial } = row;
  const { temperatureUnit } = useHere().view.settings;
  const more = unit === '°C' ? formatDegrees(step, temperatureUnit) : `${step.toFixed(1)} ${unit}`;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_9rem] items-center gap-4 border-t border-rule py-3">
      <span>
        <span className="flex flex-wrap items-baseline gap-x-3">
          <strong>{name}</strong>
          <span className={says === 'found' ? 'font-semibold text-leaf' : 'text-soft'}>{SAYS[says]}</span>
        </span>
        {row.p !== null && (
          <span className="block">
            {signed(effect)} points for {more} more{' '}
            <span className="text-soft">
              ({signed(low)} to {signed(high)})
            </span>
          </span>
        )}
        <span className="block text-sm text-soft">
          {why} {row.p !== null && `${n} batches.`}
        </span>
      </span>
      {partial.length > 2 && row.p !== null && <Partial points={partial} found={says === 'found'} />}
    </li>
  );
}

/** Scores over one fact, the others held: a small picture, no chart. */
function Partial({ points, found }: { points: FactEffect['partial']; found: boolean }) {
  const xs = points.map(({ x }) => x);
  const ys = points.map(({ y }) => y);
  const scale = (values: number[]): ((value: number) => number) => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    return (value) => (high > low ? (value - low) / (high - low) : 0.5);
  };
  const [ax, ay] = [scale(xs), scale(ys)];
  return (
    <svg viewBox="0 0 140 70" className="w-full rounded bg-sheet" aria-hidden>
      {points.map(({ code, x, y }) => (
        <circle
          key={code}
          cx={8 + 124 * ax(x)}
          cy={62 - 54 * ay(y)}
          r="2.6"
          fill={found ? 'var(--leaf)' : 'var(--ink-soft)'}
          opacity="0.75"
        />
      ))}
    </svg>
  );
}
