import { plainStep } from '../src/ledger/plain-step';
import type { PlainStep, Step } from '../src/ledger/types';

/** A step of the past: its fields are read from elsewhere. */
class Past implements Step {
  constructor(private readonly fields: PlainStep) {}
  get id(): string {
    return this.fields.id;
  }
  get seq(): number {
    return this.fields.seq;
  }
  get order(): number {
    return this.fields.order;
  }
  get kind(): Step['kind'] {
    return this.fields.kind;
  }
  get station(): Step['station'] {
    return this.fields.station;
  }
  get at(): number {
    return this.fields.at;
  }
  get recordedAt(): number {
    return this.fields.recordedAt;
  }
  get personId(): string {
    return this.fields.personId;
  }
  get batchId(): string | null {
    return this.fields.batchId;
  }
  get machineId(): string | null {
    return this.fields.machineId;
  }
  get supersedes(): string | null {
    return this.fields.supersedes;
  }
  get reason(): string | null {
    return this.fields.reason;
  }
  get withdrawn(): boolean {
    return this.fields.withdrawn;
  }
  get command(): unknown {
    return this.fields.command;
  }
  get slots(): Step['slots'] {
    return this.fields.slots;
  }
  get minutes(): number {
    return this.fields.minutes;
  }
  get energyKwh(): number {
    return this.fields.energyKwh;
  }
  get money(): Step['money'] {
    return this.fields.money;
  }
  get postings(): Step['postings'] {
    return this.fields.postings;
  }
  get overrides(): Step['overrides'] {
    return this.fields.overrides;
  }
}

const FIELDS: PlainStep = {
  id: 's7',
  seq: 7,
  order: 7,
  kind: 'sort',
  station: 'sort',
  at: 1_000,
  recordedAt: 2_000,
  personId: 'ann',
  batchId: null,
  machineId: null,
  supersedes: null,
  reason: null,
  withdrawn: false,
  command: { kind: 'sort' },
  slots: { good: 'h1' },
  minutes: 30,
  energyKwh: 0,
  money: { purchaseMilli: 0, labourMilli: 6_000, energyMilli: 0, revenueMilli: 0 },
  postings: [],
};

test('a spread of a step is no step, for its type as in truth', () => {
  const step: Step = new Past(FIELDS);
  // oxlint-disable-next-line typescript/no-misused-spread -- what it warns of is what is shown
  const spread = { ...step, seq: 8 };
  // @ts-expect-error its fields are not those of the copy
  const copy: Step = spread;
  expect(copy.id).toBeUndefined();
  const { id, ...rest } = step;
  // @ts-expect-error what is left of it has none of them
  expect([id, rest.at]).toEqual(['s7', undefined]);
});

test('a plain step has its fields itself, and can be spread and taken apart', () => {
  const step: Step = new Past(FIELDS);
  expect(plainStep(step)).toEqual(FIELDS);
  const copy: Step = { ...plainStep(step), seq: 8 };
  expect(copy).toEqual({ ...FIELDS, seq: 8 });
  const { id: _, ...rest } = plainStep(step);
  expect(rest.at).toBe(1_000);
});

test('a stop that was gone past is copied with its step, and left out where there was none', () => {
  const overrides = [{ gate: 'roast/ceiling', sentence: 'Over 47 °C.', word: 'Meant.', personId: 'ann' }];
  expect(plainStep(new Past({ ...FIELDS, overrides }))).toEqual({ ...FIELDS, overrides });
  expect('overrides' in plainStep(new Past(FIELDS))).toBe(false);
});
