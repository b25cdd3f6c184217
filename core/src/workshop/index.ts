/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type CurveMeta, type FileMeta } from './kept';
export { machinesAt } from './machines';
export { type Mark, type StepMarks, mark, says } from './mark';
export { ROUTE_TEMPLATES } from './routes';
export {
  DEFAULT_SETTINGS,
  type Machine,
  type Person,
  type Settings,
  attended,
  machine,
  machineFacts,
  newCleaning,
  newMaterial,
  newPerson,
  newRoute,
  newService,
  person,
  settings,
  settingsChange,
} from './schemas';
export { type StationFacts, type StationYield } from './station';
export { type SharedThing, type StepThings, madeOf, oneThing } from './things';
export { USUAL_MATERIALS } from './usual-materials';
export { type Work, workedMs } from './work';
