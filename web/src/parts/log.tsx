import type { Seen } from '@wunsch/core/ledger/types';
import { SEEN_WORDS } from '@wunsch/core/temper/bloom';
import { FELT } from '@wunsch/core/grind/fineness';
import { useState } from 'react';
import { Link } from 'react-router';
import type { LineView, StepView } from '@wunsch/core/api/types';
import { LOSS_NAMES, type StepKind } from '@wunsch/core/ledger/types';
import { StationIcon } from './icons';
import { count, useShow } from './workshop';

export const STEP_NAMES: Record<StepKind, string> = {
  receive: 'Received',
  dry: 'Weighed in dry',
  buy: 'Bought',
  sort: 'Sorted',
  roast: 'Roasted',
  winnow: 'Winnowed',
  charge: 'Into the grinder',
  discharge: 'Poured from the grinder',
  rest: 'Off the shelf',
  temper: 'Tempered',
  silk: 'Silk made',
  mould: 'Moulded',
  pack: 'Packed',
  taste: 'Tasted',
  remelt: 'Sent to remelt',
  sell: 'Sold',
  open: 'Opening stock',
  return: 'Sent back',
  adjust: 'Counted',
  reading: 'Reading',
};

/** What is only noted at the stones, without a figure. */
const READING_WORDS: Record<string, string | undefined> = {
  'stones-run': 'the stones run again',
  'stones-up': 'stones up: conched only',
  'stones-down': 'stones down: ground again',
  spilled: 'it spilled over',
  starved: 'stone on stone: too empty',
  pass: 'one more pass',
};
const STOP_WORDS: Record<string, string | undefined> = {
  power: ': power cut',
  night: ' for the night',
  stalled: ': they stalled, too full',
};

const signed = (line: LineView): boolean => line.massMg > 0;

/** One step in words: `25.50 kg in, 24.36 kg on (95.5 %), 1.10 kg rejects`. */
export function stepWords(step: StepView, show: ReturnType<typeof useShow>): string {
  if (step.withdrawn) return 'taken back';
  const command = step.command as Record<string, unknown>;
  if (step.kind === 'reading') {
    const value = command['value'] as number | null;
    const what = command['what'] as string;
    if (what === 'note' || what === 'texture') return String(command['note']);
    if (what === 'move') return `goes on in ${step.machine ?? 'another machine'}`;
    if (what === 'stones-stop') return `the stones stop${STOP_WORDS[String(command['cause'])] ?? ''}`;
    const words = READING_WORDS[what];
    if (words !== undefined) return words;
    if (what === 'seen')
      return `seen: ${((command['seen'] ?? []) as Seen[]).map((row) => SEEN_WORDS[row]).join(', ')}${typeof command['bloom'] === 'string' ? `, ${command['bloom']} bloom` : ''}`;
    if (what === 'felt') return `feels: ${FELT[value ?? 0]?.words ?? ''}`;
    return what === 'micron'
      ? `${value} µm`
      : what === 'bowl-temperature'
        ? show.temp(value ?? 0)
        : what === 'rest-taste'
          ? `${value} of 10 on the shelf`
          : `${what} ${value}`;
  }
  if (step.kind === 'taste')
    return `${String(command['score'])} of 10${command['note'] === '' ? '' : `: ${String(command['note'])}`}`;
  if (step.kind === 'temper') {
    const { meltC, coolC, workC } = command as { meltC: number; coolC: number; workC: number };
    return `${show.mass(step.inMg)} in, ${show.temp(meltC)} → ${show.temp(coolC)} → ${show.temp(workC)}`;
  }
  if (step.kind === 'return') {
    const { pieces = 0, fate, why } = command as { pieces?: number; fate: string; why: string };
    return `${pieces > 0 ? count(pieces) : show.mass(Math.abs(step.goodMg))} sent back, ${fate === 'back' ? 'into the store' : 'thrown away'}${why === '' ? '' : `: ${why}`}`;
  }
  if (step.kind === 'sell') {
    const pieces = step.lines.reduce((sum, line) => sum - line.pieces, 0);
    const use = textOf(command['use']);
    const to = textOf(command['to']);
    if (use !== '' && use !== 'sold') return `${show.mass(step.inMg)} ${use}${to === '' ? '' : `, ${to}`}`;
    return `${pieces > 0 ? `${count(pieces)} ${pieces === 1 ? 'piece' : 'pieces'}` : show.mass(step.inMg)} for ${show.money(step.cost.revenueMilli)}${to === '' ? '' : `, ${to}`}`;
  }
  const losses = step.lines
    .filter((line) => line.loss !== null && line.massMg !== 0)
    .map(
      (line) =>
        `${show.mass(line.massMg)} ${LOSS_NAMES[line.loss ?? 'unaccounted'].toLowerCase()}${line.reason === null ? '' : ` (${line.reason})`}`,
    );
  const grouped =
    step.kind === 'sort'
      ? [
          `${show.mass(step.lines.reduce((sum, line) => (line.loss === 'reject' ? sum + line.massMg : sum), 0))} rejects`,
          ...losses.filter((text) => !text.includes('(')),
        ]
      : losses;
  const good = step.lines.filter((line) => line.holdingId !== null && signed(line) && line.kind !== 'husk');
  const bars = good
    .filter((line) => line.pieces > 0)
    .map((line) => `${count(line.pieces)} ${line.kind === 'seconds' ? 'seconds' : line.pieces === 1 ? 'bar' : 'bars'}`);
  const husk = step.lines
    .filter((line) => line.kind === 'husk' && line.massMg > 0)
    .map((line) => `${show.mass(line.massMg)} husk`);
  const main =
    step.inMg > 0
      ? `${show.mass(step.inMg)} in${step.goodMg > 0 && step.kind !== 'charge' ? `, ${show.mass(step.goodMg)} on` : ''}`
      : show.mass(step.goodMg);
  return [main, ...bars, ...husk, ...grouped].join(', ');
}

const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');

/** What was noted with a step, where its words do not say it already. */
const noteOf = ({ kind, command }: StepView): string =>
  kind === 'taste' ? '' : textOf((command as { note?: unknown }).note);

const LOG_ROWS = 12;

/** The running log, newest first. */
export function Log({ steps, station = true }: { steps: readonly StepView[]; station?: boolean }) {
  const show = useShow();
  const [all, setAll] = useState(false);
  if (steps.length === 0) return <p className="text-sm text-soft">Nothing entered yet.</p>;
  const shown = all ? steps : steps.slice(0, LOG_ROWS);
  return (
    <ol className="rows text-sm">
      {shown.map((step) => (
        <li key={step.id} className="py-2">
          <Link to={`/step/${step.id}`} className="group block rounded-sm">
            <span className="flex items-center gap-2">
              {station && <StationIcon station={step.station} size={16} />}
              <span className="font-semibold group-hover:underline">{STEP_NAMES[step.kind]}</span>
              <span className="text-soft">{step.person}</span>
              <span className="ml-auto text-soft">{show.moment(step.at)}</span>
            </span>
            <span className="mt-0.5 block text-soft">
              {stepWords(step, show)}
              {step.supersedes !== null && <em> · corrected</em>}
            </span>
            {noteOf(step) !== '' && <span className="mt-0.5 block">“{noteOf(step)}”</span>}
            {step.overrides.map(({ gate, sentence, word }) => (
              <span key={gate} className="mt-0.5 block text-crimson">
                {sentence} Gone past: “{word}”.
              </span>
            ))}
          </Link>
        </li>
      ))}
      {steps.length > shown.length && (
        <li>
          <button type="button" className="button button-quiet" onClick={() => setAll(true)}>
            All {steps.length}
          </button>
        </li>
      )}
    </ol>
  );
}
