import { screen as beans } from './beans/screen';
import { screen as grind } from './grind/screen';
import { screen as mould } from './mould/screen';
import { screen as pack } from './pack/screen';
import { screen as rest } from './rest/screen';
import { screen as roast } from './roast/screen';
import { screen as sort } from './sort/screen';
import { screen as taste } from './taste/screen';
import { screen as temper } from './temper/screen';
import { screen as winnow } from './winnow/screen';
import type { Station } from '@wunsch/core/work/stations';
import type { Screen } from './parts/screen';

/* The registry of the stations: what each shows at its bench. */

export const SCREENS: Readonly<Record<Station, Screen>> = {
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
};
