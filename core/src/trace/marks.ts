import type { CommandOf } from '../commands';
import type { Step } from '../ledger/types';

/** Something that one has to know who looks at goods: it stands beside their code everywhere. */
export interface Mark {
  id:
    | 'hold'
    | 'blocked'
    | 'claim'
    | 'refused'
    | 'out-of-temper'
    | 'bloom'
    | 'sour'
    | 'disputed'
    | 'over-run'
    | 'remelted'
    | 'override';
  /** One or two words. */
  label: string;
  /** What it rests on, with the words of who said it. */
  why: string;
  stepId: string | null;
}

const mark = (id: Mark['id'], label: string, why: string, stepId: string | null = null): Mark => ({
  id,
  label,
  why,
  stepId,
});

/** Tasters this far apart do not speak of the same bar, points of ten. */
export const DISPUTED_POINTS = 3;
/** Under it mass turns gummy, µm; and this far under its own target a batch has run over. */
const GUMMY_MICRON = 12;
const OVER_SHARE = 0.75;
/** A sourness noted at the stones that is felt in the bar, of ten. */
const SOUR = 6;

const says = (text: string, word: RegExp): boolean =>
  word.test(text) && !new RegExp(`\\b(no|not|never|without|less|nothing)\\b[^.,;]{0,12}${word.source}`, 'i').test(text);

function overRun(micron: number | null, targetMicron: number | null, stepId: string): Mark[] {
  const least = Math.max(GUMMY_MICRON, (targetMicron ?? 0) * OVER_SHARE);
  if (micron === null || micron >= least) return [];
  const meant = targetMicron === null ? '' : `, ${targetMicron} µm were meant`;
  return [mark('over-run', 'over-run', `${micron} µm${meant}.`, stepId)];
}

function ofStep(step: Step, targetMicron: number | null): Mark[] {
  const found: Mark[] = (step.overrides ?? []).map(({ gate, sentence, word }) =>
    gate === 'mould/out-of-temper'
      ? mark('out-of-temper', 'not in temper', `${sentence} Gone past: “${word}”.`, step.id)
      : mark('override', 'stop gone past', `${sentence} Gone past: “${word}”.`, step.id),
  );
  if (step.kind === 'temper') {
    const { test } = step.command as CommandOf<'temper'>;
    if (test === 'failed') found.push(mark('out-of-temper', 'failed temper', 'Its temper test failed.', step.id));
  }
  if (step.kind === 'remelt') {
    const { why, note } = step.command as CommandOf<'remelt'>;
    const words = [why, note].filter((text) => text !== '').join(', ');
    if (says(words, /bloom/i)) found.push(mark('bloom', 'bloomed', words, step.id));
    found.push(mark('remelted', 'remelted', words === '' ? 'Sent back to be melted.' : words, step.id));
  }
  if (step.kind === 'reading') {
    const { what, value } = step.command as CommandOf<'reading'>;
    if (what === 'sourness' && (value ?? 0) >= SOUR)
      found.push(mark('sour', 'sour', `Sourness ${value} of 10 at the stones.`, step.id));
    if (what === 'seen') {
      const { seen = [], bloom } = step.command as CommandOf<'reading'>;
      if (bloom != null || seen.includes('veil'))
        found.push(
          mark(
            'bloom',
            'bloomed',
            bloom == null ? 'A grey veil is seen on it.' : `${bloom === 'fat' ? 'Fat' : 'Sugar'} bloom is seen on it.`,
            step.id,
          ),
        );
    }
    if (what === 'micron') found.push(...overRun(value, targetMicron, step.id));
  }
  if (step.kind === 'discharge')
    found.push(...overRun((step.command as CommandOf<'discharge'>).micron, targetMicron, step.id));
  if (step.kind === 'taste') {
    const { note } = step.command as CommandOf<'taste'>;
    if (says(note, /\bsour\b|\bacetic\b|\bvinegar/i)) found.push(mark('sour', 'sour', note, step.id));
    if (says(note, /bloom/i)) found.push(mark('bloom', 'bloomed', note, step.id));
  }
  return found;
}

/**
 * What one has to know of goods, from the steps behind them and what was said about them.
 *
 * A later reading takes an earlier one back: sourness that conched away marks nothing, nor does a pour that was
 * tempered again.
 *
 * @param steps in the order of the work; @param targetMicron of the batch, where there is one
 */
export function marksOf(steps: readonly Step[], targetMicron: number | null): Mark[] {
  const newest = new Map<string, Step>();
  for (const step of steps) {
    if (step.kind === 'reading') newest.set((step.command as CommandOf<'reading'>).what, step);
    if (step.kind === 'temper') newest.set('temper', step);
  }
  const found: Mark[] = [];
  for (const step of steps) {
    const what = step.kind === 'reading' ? (step.command as CommandOf<'reading'>).what : step.kind;
    const stale = newest.has(what) && newest.get(what) !== step;
    for (const row of ofStep(step, targetMicron)) {
      if (stale && row.id !== 'override') continue;
      if (row.id !== 'override' && found.some(({ id }) => id === row.id)) continue;
      found.push(row);
    }
  }
  const scores = steps.filter(({ kind }) => kind === 'taste').map((step) => (step.command as CommandOf<'taste'>).score);
  const spread = scores.length > 1 ? Math.max(...scores) - Math.min(...scores) : 0;
  if (spread >= DISPUTED_POINTS)
    found.push(mark('disputed', 'disputed', `Tasters ${spread.toFixed(1)} points apart: taste again, blind.`));
  return found;
}
