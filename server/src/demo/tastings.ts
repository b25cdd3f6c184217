import type { TasteSheet } from '@wunsch/core/taste/records';
import { normals, seeded } from '@wunsch/core/stats/chance';
import type { Workshop } from '../journal/workshop';
import { layOut } from '../taste/sessions';
import { Doors } from './schedule';

const DAY = 86_400_000;
const MINUTE = 60_000;

/** What comes up in bars of each country, as the house says it. */
const COMES_UP: Readonly<Record<string, readonly string[]>> = {
  'Viet Nam': ['spice', 'raisin', 'honey', 'cherry'],
  'São Tomé': ['earth', 'olive', 'wood', 'raisin'],
  Uganda: ['caramel', 'nutty', 'malt', 'butter'],
  Fiji: ['lemon', 'berries', 'flowers', 'yoghurt'],
};
const GUESTS = ['Maren', 'Oluf', 'Sigga', 'Bent', 'Yara', 'Timo'];

const PLAIN: Omit<TasteSheet, 'tastingId' | 'subject'> = {
  kind: 'sheet',
  taster: '',
  sessionId: null,
  place: 1,
  visit: 1,
  seconds: 0,
  colour: 4,
  shine: 7,
  snap: 8,
  cleanBreak: true,
  atSeam: false,
  smell: [],
  notes: [],
  scales: {},
  overall: null,
  eatWhen: '',
  pauses: [60],
  mood: '',
  food: 'before',
  note: '',
};

const half = (value: number): number => Math.max(0, Math.min(10, Math.round(2 * value) / 2));

/** Sheets of the year, words of the house, two blind sessions, a trial of hours, bars of other makers. */
export function writeTastings(workshop: Workshop, began: number, now: number): void {
  const chance = seeded(311);
  const normal = normals(chance);
  const doors = new Doors(workshop.settings);
  const head = (at: number, personId = 'ilse') => ({
    personId,
    at: new Date(Math.min(doors.beforeClosing(at), now)).toISOString(),
  });
  const { book, batches, lots, valuation } = workshop;
  const countryOf = (holdingId: string): string => {
    for (const [rootId] of [...valuation.makeUp(holdingId)].sort((a, b) => b[1] - a[1])) {
      const facts = lots.get(rootId);
      if (facts) return facts.country;
    }
    return '';
  };
  workshop.addRecord('taste', { kind: 'word', word: 'olive' }, head(began + 20 * DAY));
  workshop.addRecord('taste', { kind: 'join', word: 'red berries', into: 'berries' }, head(began + 60 * DAY));

  const goods = [...book.holdings.values()]
    .filter(({ kind, batchId }) => kind === 'packed' && batchId !== null)
    .map((holding) => ({ holding, at: book.firstEntry(holding.id)?.at ?? now }))
    .filter(({ at }) => at < now - 4 * DAY)
    .sort((a, b) => a.at - b.at);
  for (const { holding, at } of goods.slice(-40)) {
    const words = COMES_UP[countryOf(holding.id)] ?? ['cocoa'];
    const word = (): string => words[Math.floor(chance() * words.length)] ?? 'cocoa';
    const when = at + 3 * DAY + 2 * 3_600_000;
    workshop.addRecord(
      'taste',
      {
        ...PLAIN,
        tastingId: `demo-${holding.code}`,
        subject: { of: 'holding', id: holding.id },
        seconds: 70 + Math.round(20 * normal()),
        smell: ['cocoa', word()],
        notes: [
          { second: 6, phase: 'opening', word: chance() < 0.3 ? 'red berries' : word() },
          { second: 24, phase: 'middle', word: word() },
          { second: 55, phase: 'finish', word: chance() < 0.4 ? 'cocoa' : word() },
        ],
        scales: { sweet: 5, sour: half(4 + normal()), melt: half(7 + 0.5 * normal()), length: half(6 + normal()) },
        overall: half(6.8 + 0.6 * normal()),
      },
      head(when, chance() < 0.5 ? 'ilse' : 'tomo'),
    );
  }

  const here = [
    ...new Map(goods.filter(({ holding }) => book.live.has(holding.id)).map((row) => [row.holding.name, row])).values(),
  ].slice(-3);
  const session = (id: { at: number; seed: number; tasters: number; name: string }): string =>
    workshop.addRecord(
      'taste',
      {
        kind: 'session',
        session: {
          name: id.name,
          question: 'Which would you rather eat again?',
          bars: here.map(({ holding }) => ({ subject: { of: 'holding', id: holding.id }, name: holding.name })),
          tasters: id.tasters,
          seed: id.seed,
          scales: true,
          trialId: null,
        },
      },
      head(id.at),
    ).id;
  const taste = (sessionId: string, plan: { seed: number; tasters: number; at: number }, sitting: number): void => {
    const { orders } = layOut({
      name: '',
      question: '',
      scales: true,
      trialId: null,
      bars: here.map(({ holding }) => ({ subject: { of: 'holding', id: holding.id }, name: holding.name })),
      ...plan,
    });
    GUESTS.slice(0, sitting).forEach((taster, seat) => {
      workshop.addRecord('taste', { kind: 'seat', sessionId, seat, taster }, head(plan.at));
      const [lean, wide] = [0.8 * normal(), 0.8 + 0.4 * chance()];
      (orders[seat] ?? []).forEach((bar, place) => {
        const { holding } = here[bar] ?? {};
        if (!holding) return;
        const words = COMES_UP[countryOf(holding.id)] ?? ['cocoa'];
        workshop.addRecord(
          'taste',
          {
            ...PLAIN,
            tastingId: `${sessionId}.${seat}`,
            sessionId,
            subject: { of: 'holding', id: holding.id },
            taster,
            place: place + 1,
            seconds: 65,
            smell: [words[Math.floor(chance() * words.length)] ?? 'cocoa'],
            scales: { sweet: half(5 + normal()), sour: half(3 + bar + normal()), melt: half(7 + 0.6 * normal()) },
            overall: half(6.2 + lean + wide * [1.1, -0.2, -0.9][bar]! + (place === 0 ? 0.4 : 0) + 0.6 * normal()),
          },
          head(plan.at + (8 + 9 * place) * MINUTE),
        );
      });
    });
  };
  if (here.length === 3) {
    const past = { at: now - 12 * DAY, seed: 5, tasters: 6, name: 'Three of the shelf' };
    const opened = session(past);
    taste(opened, past, 6);
    // A minute apart: of records of one moment nobody could say which came first.
    for (const [state, minutes] of [
      ['closed', 90],
      ['opened', 91],
    ] as const)
      workshop.addRecord(
        'taste',
        { kind: 'session-state', sessionId: opened, state },
        head(past.at + minutes * MINUTE),
      );
    const running = { at: now - 40 * MINUTE, seed: 11, tasters: 6, name: 'For the winter market' };
    taste(session(running), running, 3);
  }

  // Days on the shelf, as they came about: what was made and tasted is in the trial.
  const levels = [14, 16, 18];
  const trialId = workshop.addRecord(
    'trials',
    {
      kind: 'trial',
      trial: {
        name: 'Two weeks on the shelf, or more',
        question: 'Whether four days more are worth the place they take.',
        factors: [{ factor: 'restDays', levels }],
        design: 'ladder',
        arms: levels.map((level) => [level]),
      },
    },
    head(now - 60 * DAY),
  ).id;
  const made = new Set<number>();
  for (const { id, code } of [...batches.values()].slice(-30, -4)) {
    const steps = book.timeline.filter(({ batchId }) => batchId === id);
    const poured = steps.find(({ kind }) => kind === 'discharge')?.at;
    const on = steps.find(({ kind, at }) => kind === 'rest' && at > (poured ?? Infinity))?.at;
    if (poured === undefined || on === undefined || !steps.some(({ kind }) => kind === 'taste')) continue;
    const arm = levels.findIndex((level) => Math.abs((on - poured) / DAY - level) < 0.6);
    if (arm < 0 || made.has(arm)) continue;
    made.add(arm);
    // The longest one is still to be made.
    if (arm < 2) workshop.addRecord('trials', { kind: 'made', trialId, arm, code }, head(now - 30 * DAY));
  }

  for (const [maker, bar, origin, cocoaPct, price] of [
    ['Brackwater workshop', 'Delta, second harvest', 'Viet Nam', 74, 8.2],
    ['Three Lanterns', 'Island dark', 'Fiji', 70, 9.5],
  ] as const) {
    const at = now - 20 * DAY;
    const { id } = workshop.addRecord(
      'taste',
      {
        kind: 'outside',
        bar: { maker, bar, origin, cocoaPct, price, batch: 'A 31', bestBefore: null, massG: 60, note: '' },
      },
      head(at),
    );
    for (const [visit, overall] of [
      [1, half(6.5 + 0.6 * normal())],
      [2, half(6.9 + 0.4 * normal())],
    ] as const)
      workshop.addRecord(
        'taste',
        {
          ...PLAIN,
          tastingId: 'demo-others',
          subject: { of: 'outside', id },
          visit,
          seconds: 60,
          smell: ['roast'],
          notes: [{ second: 9, phase: 'opening', word: visit === 1 ? 'roast' : 'nutty' }],
          scales: { sour: visit === 1 ? 5 : 3.5, melt: 6 },
          overall,
        },
        head(at + visit * 20 * MINUTE),
      );
  }
}
