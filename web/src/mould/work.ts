import { milligrams, type StationWork } from '../entry/station-work';
import { typedNumber } from '../parts/number';

export const MOULD_WORK: StationWork = {
  kind: 'mould',
  verbs: { start: 'Fill the moulds', finish: 'Save the bars', oneGo: 'Enter moulding that is done' },
  sum: {
    parts: (v) => {
      const barG = typeof v['barG'] === 'number' ? v['barG'] : 0;
      const good = v['goodG'] === undefined ? barG * Number(v['goodPieces'] ?? 0) * 1000 : milligrams(v['goodG']);
      return [
        { name: 'good bars', mg: good, tone: 'good' },
        { name: 'seconds', mg: barG * Number(v['secondsPieces'] ?? 0) * 1000, tone: 'by' },
        { name: 'remelt', mg: milligrams(v['remeltG']), tone: 'by' },
        { name: 'blocks', mg: milligrams(v['blockG']), tone: 'by' },
        { name: 'samples', mg: milligrams(v['sampleG']), tone: 'loss' },
        { name: 'trimmings', mg: milligrams(v['trimmingsG']), tone: 'loss' },
        { name: 'in the machine', mg: milligrams(v['holdUpG']), tone: 'loss' },
      ];
    },
    restName: 'missing',
    restTone: 'missing',
  },
  keeps: [{ name: 'barG', unit: 'g' }, { name: 'cavities' }],
  begins: (work) => (work ? { barG: { text: typedNumber(work.moulding?.barG ?? 70), unit: 'g' } } : {}),
  pantry: 'joins',
  past: (view) => {
    const last = view.recent.find((step) => step.kind === 'mould')?.command as { barG?: number } | undefined;
    return { barG: { value: last?.barG ?? 70, of: last ? 'The last bars weighed' : 'Bars often weigh' } };
  },
};
