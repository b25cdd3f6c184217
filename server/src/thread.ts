import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import workerpool from 'workerpool';
import { useFontsFrom } from './print/paper';
import { perform } from './tasks';

useFontsFrom(resolve(dirname(fileURLToPath(import.meta.url)), '../..'));
workerpool.worker({ perform: perform as (...args: unknown[]) => unknown });
