import { useState } from 'react';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { seed, silk, slab, steelBowl } from '@wunsch/core/temper/sums';
import type { Windows } from '@wunsch/core/temper/windows';
import { SCHOOLS, SCHOOL_WORDS, type School } from '@wunsch/core/work/tempering';
import { Chips, NumberBox } from '../parts/fields';
import { readNumbers, typedNumber } from '../parts/number';
import { useShow } from '../parts/workshop';

const OPTIONS = SCHOOLS.map((school) => [school, SCHOOL_WORDS[school]] as const);

/** Figures without which a school has no sum. */
const NEEDED: Partial<Record<School, readonly ('warm' | 'cold' | 'wanted' | 'bowl' | 'seed' | 'melts')[]>> = {
  slab: ['warm', 'cold', 'wanted', 'bowl'],
  seed: ['warm', 'wanted', 'seed', 'melts'],
};

interface SumsProps {
  massG: number;
  windows: Windows;
  fatShare: number;
  softShare: number;
}

/** The arithmetic of a school for this bowl; every figure can be typed over. */
export function Sums({ massG, windows, fatShare, softShare }: SumsProps) {
  const show = useShow();
  const [school, setSchool] = useState<School>('slab');
  const workC = (windows.work.from + windows.work.to) / 2;
  const degrees = (c: number): string => typedNumber(Math.round(10 * show.fromCelsius(c)) / 10);
  const [typed, setTyped] = useState({
    warm: degrees(40),
    cold: degrees(windows.cool.from),
    wanted: degrees(workC),
    bowl: '0',
    seed: degrees(20),
    melts: '70',
  });
  const set = (key: keyof typeof typed) => (text: string) => setTyped((now) => ({ ...now, [key]: text }));
  const { values } = readNumbers(typed);
  const isUnread = (NEEDED[school] ?? []).some((name) => values[name] === null);
  const celsius = (name: keyof typeof typed): number => show.toCelsius(values[name] ?? 0);
  const mass = (g: number): string => show.mass(Math.round(10 * g) * 100);
  const said = (): string[] => {
    switch (school) {
      case 'slab': {
        const found = slab(
          massG,
          celsius('warm'),
          celsius('cold'),
          celsius('wanted'),
          steelBowl(values.bowl ?? 0, celsius('warm')),
        );
        return [
          `Keep ${mass(found.warmG)} warm (${Math.round(100 * found.share)}\u00a0%), spread ${mass(found.spreadG)}.`,
          `Work the spread part to ${show.temp(celsius('cold'))}, scrape it back, stir: together ${show.temp(celsius('wanted'))}.`,
        ];
      }
      case 'seed': {
        const found = seed(
          massG,
          celsius('warm'),
          celsius('wanted'),
          celsius('seed'),
          fatShare,
          (values.melts ?? 0) / 100,
        );
        return [
          `${mass(found.seedG)} of seed, in thirds: ${found.thirdsG.map(mass).join(', ')}.`,
          'Stir each in until it is gone; the last third may leave some to fish out.',
        ];
      }
      case 'silk': {
        const found = silk(massG, softShare);
        return [
          `${mass(found.silkG)} of silk (${found.pct}\u00a0%) at ${show.temp(found.atC)}, stirred in; then down to ${show.temp(workC)}.`,
          `No low point is needed. Silk is cocoa butter held at ${degrees(33)} to ${show.temp(34)} until it is a paste.`,
        ];
      }
      case 'bath':
        return [
          `Stir over cold water down to ${show.temp(windows.cool.from)} to ${show.temp(windows.cool.to)}, some minutes there, then over warm water to ${show.temp(workC)}.`,
          'Wipe the bowl before it is tilted: a drop of water seizes it.',
        ];
      case 'bag':
        return [
          `A sealed bag in water of ${show.temp(workC)}, after cooling to ${show.temp(windows.cool.from)}: knead it all the time.`,
          'Hard to stir, so it often fails: test it before it is poured.',
        ];
      case 'machine':
        return [
          `Melt ${show.temp(windows.melt.from)}, cool ${show.temp(windows.cool.to)}, work ${show.temp(workC)}: then by the temper test, half a degree at a time.`,
        ];
      case 'none':
        return [
          'Coarse tablets and couverture sold by weight need none: they will bloom, and that is said to who buys them.',
        ];
    }
  };
  let words: string[];
  let refused: string | null = null;
  try {
    words = isUnread ? [] : said();
  } catch (reason) {
    if (!(reason instanceof DomainError)) throw reason;
    refused = reason.message;
    words = [];
  }
  const unit = show.tempUnit;
  return (
    <div className="mt-3 grid gap-3">
      <div className="flex flex-wrap items-end gap-4">
        <Chips legend="School" options={OPTIONS} chosen={[school]} choose={([next]) => setSchool(next ?? 'slab')} />
      </div>
      {(school === 'slab' || school === 'seed') && (
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
          <NumberBox
            label={school === 'slab' ? 'Kept warm' : 'It is at'}
            unit={unit}
            value={typed.warm}
            onChange={set('warm')}
          />
          {school === 'slab' && (
            <NumberBox label="Back from the slab" unit={unit} value={typed.cold} onChange={set('cold')} />
          )}
          <NumberBox label="Meant to be" unit={unit} value={typed.wanted} onChange={set('wanted')} />
          {school === 'slab' && <NumberBox label="Bowl of steel" unit="kg" value={typed.bowl} onChange={set('bowl')} />}
          {school === 'seed' && <NumberBox label="Seed is at" unit={unit} value={typed.seed} onChange={set('seed')} />}
          {school === 'seed' && <NumberBox label="Of it melts" unit="%" value={typed.melts} onChange={set('melts')} />}
        </div>
      )}
      {refused !== null ? (
        <p className="font-semibold text-crimson" role="status">
          {refused}
        </p>
      ) : (
        <div aria-live="polite">
          {isUnread && <p>Fill in what is empty: each of these is part of the sum.</p>}
          {words.map((sentence, index) => (
            <p key={sentence} className={index === 0 ? 'figure text-xl' : 'text-sm'}>
              {sentence}
            </p>
          ))}
        </div>
      )}
    </div>
  );
}
