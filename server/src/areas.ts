import { area as beans } from './beans/area';
import { area as grind } from './grind/area';
import { area as mould } from './mould/area';
import { area as pack } from './pack/area';
import { area as recipe } from './recipe/area';
import { area as rest } from './rest/area';
import { area as roast } from './roast/area';
import { area as sort } from './sort/area';
import { area as taste } from './taste/area';
import { area as temper } from './temper/area';
import { area as winnow } from './winnow/area';
import type { Area } from './ledger/area';

/* The registry of the rooms: what each tells the floor and its bench. */

export const AREAS: Readonly<Record<string, Area | undefined>> = {
  beans,
  sort,
  roast,
  winnow,
  grind,
  rest,
  temper,
  mould,
  pack,
  taste,
  recipe,
};
