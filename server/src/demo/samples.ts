import type { BeanStory } from './beans';
import { DAY, HOUR } from './schedule';
import { ORIGINS, type Origin } from './scenario';

/** A kilogram or two of each, tried before buying: one was bought, two are still on the table. */
export function offerSamples(beans: BeanStory): void {
  const { demo } = beans;
  const offers = [
    {
      origin: ORIGINS[3] as Origin,
      daysAgo: 31,
      producer: 'Nawaira Bay Farmers',
      region: 'windward bay, new blocks',
      per100g: 91,
      slaty: 0.004,
      flat: 0.004,
      moisture: 6.8,
    },
    {
      origin: ORIGINS[2] as Origin,
      daysAgo: 24,
      producer: 'Mubende Rise Growers',
      region: 'lake plain',
      per100g: 113,
      slaty: 0.045,
      flat: 0.03,
      moisture: 7.6,
    },
  ];
  for (const offer of offers) {
    const at = demo.morning(demo.now - offer.daysAgo * DAY);
    const step = demo.record(
      {
        kind: 'receive',
        ...offer.origin.lot,
        name: `${offer.origin.lot.country}, ${offer.producer}, sample`,
        producer: offer.producer,
        region: offer.region,
        harvest: `${new Date(at).getUTCFullYear()}, main crop`,
        sacks: 1,
        netG: 2_000,
        pricePerKg: offer.origin.lot.pricePerKg,
        freight: 12,
        sample: true,
        moisturePct: offer.moisture,
        note: '',
      },
      at,
      'perpetua',
    );
    const lotId = step.slots['good'] ?? '';
    beans.write(lotId, at + HOUR, {
      kind: 'inspection',
      smells: ['clean cocoa'],
      moisturePct: [offer.moisture, offer.moisture + 0.2],
      per100g: [offer.per100g, offer.per100g + 2],
      signs: {
        webbing: false,
        droppings: false,
        larvae: 0,
        moths: 0,
        wetSacks: 0,
        tornSacks: 0,
        rodents: false,
        looked: true,
      },
      cut: {
        planned: 300,
        beyond: false,
        tally: beans.tally({ partly: 0.09, purple: 0.02, slaty: offer.slaty, mouldy: 0.005, flat: offer.flat }),
      },
      note: '',
    });
    const good = Math.round(1995 - 60 * (offer.flat / 0.004) ** 0.4);
    demo.record(
      {
        kind: 'sort',
        sources: [{ holdingId: lotId, massG: 2000 }],
        rejects: [{ reason: 'flat', massG: 1990 - good }],
        goodG: good,
        note: '',
      },
      at + 2 * HOUR,
      'danso',
      { minutes: 14 },
    );
  }
}
