import { TrashIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import type { CountCheck } from '@wunsch/core/beans/sacks';
import { formatMass } from '@wunsch/core/units/mass';
import { Box, NumberBox } from '../parts/fields';
import { useHere } from '../parts/workshop';
import { useScale } from '../parts/scale';
import { readSack, sackText, sackUnit, type SackText } from './inspection-draft';

interface Props {
  sacks: readonly SackText[];
  inHand: SackText;
  change: (sacks: SackText[], inHand: SackText) => void;
  check: CountCheck | null;
}

/** Sacks weighed one by one: gross, tare, where it is put. Tare and place are kept from sack to sack. */
export function SackList({ sacks, inHand, change, check }: Props) {
  const { massSystem } = useHere().view.settings;
  const unit = sackUnit(massSystem);
  const scale = useScale(true);
  const [problem, setProblem] = useState<string | undefined>();
  const set = (part: Partial<SackText>): void => change([...sacks], { ...inHand, ...part });
  const add = (): void => {
    const read = readSack(inHand, sacks.length + 1, massSystem);
    setProblem('problem' in read ? read.problem : undefined);
    if ('problem' in read) return;
    change([...sacks, inHand], { ...inHand, gross: '' });
  };
  const settled = scale?.stable === true && !scale.unplugged;
  return (
    <div>
      <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-[1fr_1fr_1.4fr_auto]">
        <NumberBox
          label={`Sack ${sacks.length + 1}, gross`}
          unit={unit}
          value={inHand.gross}
          onChange={(gross) => set({ gross })}
          onEnter={add}
        />
        <NumberBox
          label="Empty sack"
          unit={unit}
          value={inHand.tare}
          onChange={(tare) => set({ tare })}
          onEnter={add}
          placeholder="0.6"
        />
        <Box
          label="Where it is put"
          value={inHand.place}
          onChange={(place) => set({ place })}
          onEnter={add}
          placeholder="rack A"
        />
        <button type="button" className="button button-main mb-1" onClick={add}>
          Next sack
        </button>
      </div>
      {problem !== undefined && (
        <p role="alert" className="mt-2 font-semibold text-crimson">
          Sack {sacks.length + 1}: {problem}
          {!problem.endsWith('?') && '.'}
        </p>
      )}
      <button
        type="button"
        className="button button-quiet mt-1"
        disabled={!settled}
        onClick={() =>
          scale && set({ gross: sackText({ no: 1, grossG: scale.massG, tareG: 0, place: '' }, massSystem).gross })
        }
      >
        {settled ? `Take ${formatMass(scale.massG * 1000, massSystem)} off the scale` : 'The scale has not settled'}
        {scale?.simulated === true && ' (simulated)'}
      </button>
      {check && (
        <p className={`figure mt-4 text-xl ${check.shortG > 0 ? 'text-crimson' : ''}`} aria-live="polite">
          {check.sentence}
        </p>
      )}
      <ol className="rows mt-3 sm:columns-2 sm:gap-8">
        {sacks.map((sack, index) => {
          const read = readSack(sack, index + 1, massSystem);
          return (
            <li
              key={index}
              className="grid break-inside-avoid grid-cols-[2rem_1fr_5rem_auto_auto] items-baseline gap-3 border-t-0! py-1"
            >
              <span className="text-soft">{index + 1}</span>
              <span className="truncate">{sack.place}</span>
              <span className="text-right text-sm text-soft">
                {sack.gross} − {sack.tare || '0'}
              </span>
              <span className="figure text-lg">
                {'row' in read ? formatMass((read.row.grossG - read.row.tareG) * 1000, massSystem) : '–'}
              </span>
              <button
                type="button"
                className="inline-flex size-11 items-center justify-center text-soft hover:text-ink"
                aria-label={`Take sack ${index + 1} out`}
                onClick={() =>
                  change(
                    sacks.filter((_, at) => at !== index),
                    inHand,
                  )
                }
              >
                <TrashIcon size={16} aria-hidden />
              </button>
            </li>
          );
        })}
      </ol>
    </div>
  );
}
