import { offerFields } from './entry/entry';
import { fields as beans } from './beans/fields';
import { fields as grind } from './grind/fields';
import { fields as mould } from './mould/fields';
import { fields as pack } from './pack/fields';
import { fields as rest } from './rest/fields';
import { fields as roast } from './roast/fields';
import { fields as sort } from './sort/fields';
import { fields as store } from './store/fields';
import { fields as taste } from './taste/fields';
import { fields as temper } from './temper/fields';
import { fields as winnow } from './winnow/fields';

/* The registry of what is asked for each kind of entry: a line a room. */

for (const fields of [beans, sort, roast, winnow, grind, rest, temper, mould, pack, taste, store]) offerFields(fields);
