import { papersFor, type BeanStory } from './beans';
import { DAY, HOUR } from './schedule';
import { ORIGINS, type Origin } from './scenario';

/** Pods from the town's glasshouse: a small heap in a cool room, now on the drying screens. */
export function ownHarvest(beans: BeanStory): void {
  const { demo } = beans;
  const opened = demo.mornings(demo.now - 9 * DAY) + HOUR;
  const step = demo.record(
    {
      kind: 'receive',
      name: 'Saltgarth glasshouse pods',
      producer: 'Own harvest',
      country: 'Home',
      region: 'harbour glasshouse',
      variety: 'seedlings, mixed',
      harvest: `${new Date(opened).getUTCFullYear()}, autumn`,
      form: 'wet',
      routeId: 'whole-bean',
      sacks: 1,
      netG: 38_400,
      pricePerKg: 0,
      currency: 'EUR',
      rate: 1,
      freight: 0,
      moisturePct: null,
      note: '',
    },
    opened,
    'tomo',
    { minutes: 190 },
  );
  const lotId = step.slots['good'] ?? '';
  beans.write(
    lotId,
    opened,
    {
      kind: 'harvest',
      pods: 412,
      podMassG: 171_000,
      ambientC: 19,
      openedAt: new Date(opened).toISOString(),
      note: 'In two insulated crates with a heating mat.',
    },
    'tomo',
  );
  beans.write(lotId, opened, {
    ...papersFor(ORIGINS[0] as Origin),
    people: 'Tomo',
    altitudeM: 8,
    location: null,
    vessel: 'box',
    fermentDays: 7,
    turns: 3,
    dryingBy: 'dryer',
    dryingDays: null,
    certificates: [],
  });
  const cores = [21, 24, 28, 33, 36, 39, 41, 43, 44, 44, 43, 43, 42];
  cores.forEach((coreC, index) => {
    const late = index > 8;
    beans.write(
      lotId,
      opened + index * 13 * HOUR,
      {
        kind: 'ferment',
        coreC,
        topC: coreC - 3,
        turned: [4, 7, 10].includes(index),
        smell: index < 3 ? 'yeast' : index < 7 ? 'fruity' : 'vinegar',
        colour: index < 4 ? 'pink' : late ? 'reddish brown' : 'violet',
        ph: null,
        cut: late ? 10 : 0,
        cutBrown: late ? ([3, 5, 6, 7][index - 9] ?? 7) : 0,
        note: '',
      },
      'tomo',
    );
  });
  const spread = opened + 7 * DAY;
  for (let hours = 0; spread + hours * HOUR < demo.now; hours += 11) {
    const moisturePct = Math.round((5.5 + 46 * Math.exp(-hours / 34)) * 10) / 10;
    beans.write(
      lotId,
      spread + hours * HOUR,
      { kind: 'drying', moisturePct, massG: hours === 0 ? 31_000 : null, raked: true, weather: 'dryer', note: '' },
      'tomo',
    );
  }
}
