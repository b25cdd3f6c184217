import type { Table } from './table';
import type { Workshop } from './workshop';

/** Starts whose time is taken: what else the machine does is most of a single one. */
const STARTS = 5;
/** Looks at an address: enough that a burst of something else on the machine is not most of what is left out. */
const LOOKS = 120;
/** Entries whose time is taken. */
const ENTRIES = 100;
/** A read of many years may take twice that of the demo; what is under this is quick whatever the demo's is, ms. */
const QUICK_MS = 20;

const at = (taken: number[], share: number): number =>
  taken.sort((a, b) => a - b)[Math.floor(taken.length * share)] ?? NaN;

async function timed(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

/** What is read of each workshop; a letter in braces is a code of its own: a batch, a lot, a load, a roaster, a recall. */
const READS = [
  '/api/ledger/floor',
  '/api/roast/bench',
  '/api/roast/loads?limit=400',
  '/api/roast/programs',
  '/api/roast/roasters',
  '/api/roast/loads/{R}',
  '/api/roast/roasters/{O}/loads',
  '/api/winnow/bench',
  '/api/temper/bench',
  '/api/temper/faults',
  '/api/taste/sessions',
  '/api/taste/matters',
  '/api/taste/history',
  '/api/trials',
  '/api/trace/batches?limit=300',
  '/api/trace/batches/{B}',
  '/api/trace/lots/{L}',
  '/api/beans/lots/{L}',
  '/api/sort/lots/{L}',
  '/api/beans/store',
  '/api/beans/samples',
  '/api/losses/series?station=winnow',
  '/api/losses/stock-take',
  '/api/trace/stock',
  '/api/recipe/pantry',
  '/api/recipe/recipes',
  '/api/recipe/recipes/dark-fiji',
  '/api/trace/search?q=b01',
  '/api/ledger/steps',
];

/** What has a budget of its own, the same for the demo and for many years. */
const READS_WITHIN: readonly [path: string, what: string, budgetMs: number][] = [
  ['/api/trace/codes/{B}-1', 'trace back from a pack, p95', 50],
  ['/api/trace/codes/{L}', 'trace forward from a lot, p95', 50],
  ['/api/trace/codes/{B}-1/drawing', 'drawing of a trace, p95', 100],
  ['/api/trace/recalls/{C}', 'recall sheet, p95', 300],
  ['/api/trace/compositions/{B}-1', 'composition of a pack, p95 with its way over HTTP', 5],
];

type Codes = Readonly<Record<string, string>>;
interface Side {
  workshop: Workshop;
  codes: Codes;
  packs: readonly string[];
}

async function sideOf(workshop: Workshop): Promise<Side> {
  const { batches } = await workshop.json<{ batches: { batch: { code: string } }[] }>('/api/trace/batches?limit=60');
  const { lots } = await workshop.json<{ lots: { code: string }[] }>('/api/trace/lots');
  const { loads } = await workshop.json<{ loads: { code: string }[] }>('/api/roast/loads?limit=60');
  const { roasters } = await workshop.json<{ roasters: { id: string }[] }>('/api/roast/roasters');
  const { recalls } = await workshop.json<{ recalls: { id: string }[] }>('/api/trace/recalls');
  return {
    workshop,
    codes: {
      B: batches.at(-1)?.batch.code ?? '',
      L: lots[Math.floor(lots.length / 2)]?.code ?? '',
      R: loads.at(-1)?.code ?? '',
      O: roasters[0]?.id ?? '',
      C: recalls[0]?.id ?? '',
    },
    packs: batches.slice(-6, -3).map(({ batch: { code } }) => `${code}-1`),
  };
}

/** Enters many small sortings of the fullest sack of its turn. @returns milliseconds of each, alone and with the floor */
async function enter(workshop: Workshop, hoursLate: number): Promise<{ saved: number[]; seen: number[] }> {
  const { people } = await workshop.json<{ people: { id: string }[] }>('/api/workshop');
  const { waiting } = await workshop.json<{ waiting: { id: string; freeMg: number }[] }>('/api/sort/bench');
  // What is late goes to another sack: what was entered after it would be worked out again.
  const sack = waiting.sort((a, b) => b.freeMg - a.freeMg)[hoursLate > 0 ? 1 : 0]?.id;
  const saved: number[] = [];
  const seen: number[] = [];
  for (let i = 0; i < ENTRIES; i += 1) {
    const took = await timed(() =>
      workshop.post('/api/sort/sessions', {
        personId: people[0]?.id,
        ...(hoursLate > 0 ? { at: new Date(Date.now() - hoursLate * 3_600_000).toISOString() } : {}),
        command: {
          kind: 'sort',
          sources: [{ holdingId: sack, massG: 10 }],
          rejects: [],
          goodG: 9.5,
          note: '',
        },
      }),
    );
    saved.push(took);
    seen.push(took + (await timed(() => workshop.get('/api/ledger/floor'))));
  }
  return { saved, seen };
}

const asking =
  (path: string) =>
  ({ workshop, codes }: Side): Promise<void> =>
    workshop.get(path.replace(/\{(\w)\}/g, (_, name: string) => codes[name] ?? ''));

/**
 * Measures what grows with the years, on the demo and on many years of it: start, reads, entries. Both are asked in turn, so
 * that an hour in which the machine is slow is one for both.
 */
export class Years {
  private constructor(
    private readonly table: Table,
    private readonly demo: Side,
    private readonly many: Side,
  ) {}

  /** Makes what is not there yet, measures starts, and leaves both running. */
  static async begin(table: Table, demo: Workshop, many: Workshop): Promise<Years> {
    for (const workshop of [demo, many]) {
      process.stdout.write(`Opening ${workshop.name} …\n`);
      // The first start of a program reads everything, and keeps what the next ones read.
      await workshop.start();
      await workshop.kept();
      await workshop.stop();
    }
    await table.look(async (note) => {
      const starts: [number[], number[]] = [[], []];
      const floors: [number[], number[]] = [[], []];
      for (let i = 0; i < STARTS; i += 1)
        for (const [index, workshop] of [demo, many].entries()) {
          starts[index]?.push((await workshop.start()) / 1000);
          floors[index]?.push(await timed(() => workshop.get('/api/ledger/floor')));
          await workshop.stop();
        }
      const [short = NaN, long = NaN] = starts.map((taken) => at(taken, 0.5));
      note(`${demo.name}: start with existing data, to the first answer, median`, short, 3, 's');
      note(
        `${many.name}: start with existing data, to the first answer, median`,
        long,
        Math.min(3.75, 1.25 * short),
        's',
      );
      const [seen = NaN, seenOfMany = NaN] = floors.map((taken) => at(taken, 0.5));
      note(`${demo.name}: the floor, right after a start, median`, seen, 500, 'ms');
      note(`${many.name}: the floor, right after a start, median`, seenOfMany, Math.min(1000, 2 * seen), 'ms');
    });
    for (const workshop of [demo, many]) await workshop.start();
    return new Years(table, await sideOf(demo), await sideOf(many));
  }

  private get sides(): readonly Side[] {
    return [this.demo, this.many];
  }

  /** @returns milliseconds of the demo and of many years, each asked the same in turn */
  private async inTurn(times: number, share: number, ask: (side: Side) => Promise<unknown>): Promise<[number, number]> {
    const taken: [number[], number[]] = [[], []];
    for (let i = 0; i < times; i += 1)
      for (const [index, side] of this.sides.entries()) taken[index]?.push(await timed(() => ask(side)));
    return [at(taken[0], share), at(taken[1], share)];
  }

  /** Holds both against one budget. */
  private async within(
    what: string,
    budgetMs: number,
    ask: (side: Side) => Promise<void>,
    { times = LOOKS, share = 0.95, most }: { times?: number; share?: number; most?: number } = {},
  ): Promise<void> {
    await this.table.look(async (note) => {
      const [short, long] = await this.inTurn(times, share, ask);
      note(`${this.demo.workshop.name}: ${what}`, short, budgetMs, 'ms');
      note(`${this.many.workshop.name}: ${what}`, long, budgetMs, 'ms');
    }, most);
  }

  async reads(): Promise<void> {
    const first = { times: 1, share: 0, most: 1 };
    await this.within('the loss book of a year, first look', 300, asking('/api/losses/book?months=12'), first);
    await this.within('the loss book of all years, first look', 300, asking('/api/losses/book?months=1200'), first);
    for (const path of READS) {
      const ask = asking(path);
      for (const side of this.sides) await ask(side);
      await this.table.look(async (note) => {
        const [short, long] = await this.inTurn(LOOKS, 0.95, ask);
        note(`${this.demo.workshop.name}: GET ${path}, p95`, short, 50, 'ms');
        note(`${this.many.workshop.name}: GET ${path}, p95`, long, Math.min(50, Math.max(QUICK_MS, 2 * short)), 'ms');
      });
    }
    for (const [path, what, budgetMs] of READS_WITHIN) {
      const ask = asking(path);
      for (const side of this.sides) await ask(side);
      await this.within(what, budgetMs, ask);
    }
    await this.within(
      'what three bars share, median',
      100,
      ({ workshop, packs }) => workshop.post('/api/trace/shared', { codes: packs }),
      { times: 10, share: 0.5 },
    );
  }

  /** Entries, and the floor that everybody sees after each: of what is done now, and what is written down an hour late. */
  async entries(): Promise<void> {
    for (const [what, hoursLate] of [
      ['an entry', 0],
      ['a late entry', 1],
    ] as const)
      await this.table.look(async (note) => {
        for (const side of this.sides) {
          const { saved, seen } = await enter(side.workshop, hoursLate);
          note(
            `${side.workshop.name}: ${what} saved, on the disk before it is answered, p95`,
            at(saved, 0.95),
            50,
            'ms',
          );
          note(`${side.workshop.name}: ${what} saved and the floor read again, p95`, at(seen, 0.95), 100, 'ms');
        }
      });
  }

  /** What the servers have in use after all of it. */
  async memory(): Promise<void> {
    await this.table.look((note) => {
      const [short = NaN, long = NaN] = this.sides.map(({ workshop }) => workshop.memoryMb);
      note(`${this.demo.workshop.name}: server memory`, short, 450, 'MB');
      note(`${this.many.workshop.name}: server memory`, long, Math.min(562, 1.25 * short), 'MB');
    });
  }
}
