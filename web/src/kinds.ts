import { offerFields } from './entry/entry';
import { offerWords } from './parts/log-words';
import { fields as beans } from './beans/fields';
import { log as beansLog } from './beans/log';
import { fields as grind } from './grind/fields';
import { log as grindLog } from './grind/log';
import { fields as mould } from './mould/fields';
import { log as mouldLog } from './mould/log';
import { fields as pack } from './pack/fields';
import { log as packLog } from './pack/log';
import { fields as rest } from './rest/fields';
import { log as restLog } from './rest/log';
import { fields as roast } from './roast/fields';
import { log as roastLog } from './roast/log';
import { fields as sort } from './sort/fields';
import { log as sortLog } from './sort/log';
import { fields as store } from './store/fields';
import { log as storeLog } from './store/log';
import { fields as taste } from './taste/fields';
import { log as tasteLog } from './taste/log';
import { fields as temper } from './temper/fields';
import { log as temperLog } from './temper/log';
import { fields as winnow } from './winnow/fields';
import { log as winnowLog } from './winnow/log';

/* The registry of the kinds of entries: what is asked for each, and how it is told of; two lines a room. */

for (const fields of [beans, sort, roast, winnow, grind, rest, temper, mould, pack, taste, store]) offerFields(fields);
for (const log of [
  beansLog,
  sortLog,
  roastLog,
  winnowLog,
  grindLog,
  restLog,
  temperLog,
  mouldLog,
  packLog,
  tasteLog,
  storeLog,
])
  offerWords(log);
