import type { Station } from '../work/stations';
import type { CommandOf, Command } from './commands';
import type { HoldingKind, StepKind } from './types';

/** What can be taken to each station's bench. */
export const ACCEPTS: Record<Station, readonly HoldingKind[]> = {
  beans: [],
  sort: ['lot', 'beans'],
  roast: ['beans', 'nibs', 'lot'],
  winnow: ['roasted', 'beans'],
  grind: ['nibs', 'lot', 'mass', 'block', 'remelt'],
  rest: ['block', 'mass'],
  temper: ['block', 'mass', 'remelt', 'seconds', 'tempered'],
  mould: ['tempered', 'mass'],
  pack: ['bars', 'block', 'mass', 'remelt'],
  taste: ['packed', 'bars', 'seconds'],
};

/** The step that a finished piece of work at a station becomes. */
export const STEP_OF: Partial<Record<Station, StepKind>> = {
  sort: 'sort',
  roast: 'roast',
  winnow: 'winnow',
  temper: 'temper',
  mould: 'mould',
};

/** The step that a piece of work becomes when it is finished. */
export const endsAs = ({ station, silk }: { station: Station; silk?: boolean | undefined }): StepKind | undefined =>
  silk === true ? 'silk' : STEP_OF[station];

/** Stations at which work can be under way for a while before it is weighed out. */
export const hasWork = (station: Station): boolean => STEP_OF[station] !== undefined;

/** Commands that name what they take as `sources`. */
export type SourcedCommand = CommandOf<
  'sort' | 'roast' | 'winnow' | 'charge' | 'rest' | 'temper' | 'silk' | 'mould' | 'remelt' | 'sell'
>;
export const hasSources = (command: Command): command is SourcedCommand => 'sources' in command;
