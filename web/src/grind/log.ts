import { FELT } from '@wunsch/core/grind/fineness';
import type { ReadingCommand } from '@wunsch/core/grind/reading-command';
import { SEEN_WORDS } from '@wunsch/core/temper/bloom';
import { gramWords, type OfferedWords } from '../parts/log-words';
import type { Show } from '../parts/workshop';

/** What is only noted at the stones, without a figure. */
const NOTED: Readonly<Record<string, string | undefined>> = {
  'stones-run': 'the stones run again',
  'stones-up': 'stones up: conched only',
  'stones-down': 'stones down: ground again',
  spilled: 'it spilled over',
  starved: 'stone on stone: too empty',
  pass: 'one more pass',
};
const STOPS: Readonly<Record<string, string | undefined>> = {
  power: ': power cut',
  night: ' for the night',
  stalled: ': they stalled, too full',
};

function readingWords(
  { what, value, note, cause, seen = [], bloom }: ReadingCommand,
  machine: string | null,
  show: Show,
): string {
  switch (what) {
    case 'note':
    case 'texture':
      return note;
    case 'move':
      return `goes on in ${machine ?? 'another machine'}`;
    case 'stones-stop':
      return `the stones stop${STOPS[cause ?? ''] ?? ''}`;
    case 'seen':
      return `seen: ${seen.map((row) => SEEN_WORDS[row]).join(', ')}${bloom == null ? '' : `, ${bloom} bloom`}`;
    case 'felt':
      return `feels: ${FELT[value ?? 0]?.words ?? ''}`;
    case 'micron':
      return `${value} µm`;
    case 'bowl-temperature':
      return show.temp(value ?? 0);
    case 'rest-taste':
      return `${value} of 10 on the shelf`;
    default:
      return NOTED[what] ?? `${what} ${value}`;
  }
}

/** How steps made here are told of. */
export const log: OfferedWords = {
  charge: { name: 'Into the grinder', words: (step, show) => gramWords(step, show, undefined, false) },
  discharge: { name: 'Poured from the grinder' },
  reading: {
    name: 'Reading',
    words: (step, show) => readingWords(step.command as ReadingCommand, step.machine, show),
  },
};
