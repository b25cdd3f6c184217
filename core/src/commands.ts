import { z } from 'zod/mini';
import { dry, receive } from './beans/commands';
import { charge, discharge } from './grind/commands';
import { reading } from './grind/reading-command';
import { adjust, buy, giveBack, sell } from './money/commands';
import { open } from './money/opening-command';
import { mould } from './mould/commands';
import { pack } from './pack/commands';
import { rest } from './rest/commands';
import { roast } from './roast/commands';
import { sort } from './sort/commands';
import { taste } from './taste/commands';
import { remelt, silk, temper } from './temper/commands';
import { winnow } from './winnow/commands';

/* The registry of what can be entered: each room's commands, a line each. */

export const command = z.discriminatedUnion('kind', [
  receive,
  dry,
  buy,
  sort,
  roast,
  winnow,
  charge,
  discharge,
  rest,
  temper,
  silk,
  mould,
  pack,
  taste,
  remelt,
  sell,
  giveBack,
  adjust,
  reading,
  open,
]);
export type Command = z.infer<typeof command>;
export type CommandOf<K extends Command['kind']> = Extract<Command, { kind: K }>;

/** Commands that name what they take as `sources`. */
export type SourcedCommand = Extract<Command, { sources: unknown }>;
export const hasSources = (entered: Command): entered is SourcedCommand => 'sources' in entered;

const BY_KIND = new Map(command.def.options.map((option) => [option.shape.kind.def.values[0] as string, option]));

/** What one kind of entry is read by. */
export const commandSchema = (kind: Command['kind']): z.ZodMiniType => BY_KIND.get(kind) ?? command;
