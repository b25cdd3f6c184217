import { Follower, type Following } from '../../src/run/follower';

interface Run {
  id: string;
  looks: number;
  kept: number;
}

const made = (ids: string[], more: Partial<Following<Run>> = {}) => {
  const runs = new Map(ids.map((id) => [id, { id, looks: 0, kept: 0 }]));
  const told: unknown[] = [];
  let now = 1_000_000;
  const follower = new Follower<Run>({
    everyMs: 100,
    keepMs: 3000,
    now: () => now,
    runs: () => runs.values(),
    idOf: ({ id }) => id,
    look: async (run) => {
      run.looks += 1;
      await Promise.resolve();
    },
    keep: async (run) => {
      run.kept += 1;
      await Promise.resolve();
    },
    log: (error) => told.push(error),
    ...more,
  });
  return { runs, told, follower, later: (ms: number) => (now += ms) };
};

test('looks at every run, and keeps what was read only now and then', async () => {
  const { runs, follower, later } = made(['a', 'b']);
  for (let i = 0; i < 7; i += 1) {
    await follower.look();
    later(1000);
  }
  expect([...runs.values()]).toEqual([
    { id: 'a', looks: 7, kept: 3 },
    { id: 'b', looks: 7, kept: 3 },
  ]);
});

test('a run that fails is told at it and tried again, and no other run waits for it', async () => {
  let broken = true;
  const { runs, told, follower } = made(['a', 'b'], {
    look: async (run) => {
      if (run.id === 'a' && broken) throw new Error('no probe');
      run.looks += 1;
      await Promise.resolve();
    },
  });
  await follower.look();
  expect(follower.trouble('a')).toMatch(/cannot be followed at the moment/);
  expect(follower.trouble('b')).toBeNull();
  expect(runs.get('b')?.looks).toBe(1);
  expect(told).toHaveLength(1);
  broken = false;
  await follower.look();
  expect(follower.trouble('a')).toBeNull();
  // What is over is forgotten with its trouble.
  broken = true;
  await follower.look();
  runs.delete('a');
  await follower.look();
  expect(follower.trouble('a')).toBeNull();
});

test('what cannot be written is said, tried for every run, and gone once it can be', async () => {
  let full = true;
  const { runs, follower } = made(['a', 'b'], {
    keep: async (run) => {
      if (full && run.id === 'a') throw new Error('disk full');
      run.kept += 1;
      await Promise.resolve();
    },
  });
  await expect(follower.keep()).rejects.toThrow('disk full');
  expect(runs.get('b')?.kept).toBe(1);
  await follower.look();
  expect(follower.trouble('a')).toMatch(/cannot be written to disk. They are kept here in memory/);
  full = false;
  await follower.keep();
  expect(follower.trouble('a')).toBeNull();
});

test('one look at a time; who asks to keep while it is written waits for the next writing', async () => {
  const order: string[] = [];
  let go: () => void = () => undefined;
  const { follower } = made(['a'], {
    look: async () => {
      order.push('look');
      await new Promise<void>((resolve) => (go = resolve));
    },
    keep: async () => {
      order.push('writes');
      await new Promise((resolve) => setTimeout(resolve, 20));
      order.push('wrote');
    },
  });
  const first = follower.look();
  await follower.look();
  expect(order).toEqual(['look']);
  go();
  await first;
  order.length = 0;
  await Promise.all([follower.keep(), follower.keep()]);
  expect(order).toEqual(['writes', 'wrote', 'writes', 'wrote']);
});

test('it stops only when what was read is kept, and tells its screens of every look', async () => {
  const { runs, follower } = made(['a'], { keepMs: 60_000 });
  let looks = 0;
  const silent = follower.onLook(() => (looks += 1));
  const stop = follower.watch(10);
  await new Promise((resolve) => setTimeout(resolve, 80));
  await stop();
  expect(looks).toBeGreaterThan(2);
  const seen = looks;
  silent();
  await follower.look();
  expect(looks).toBe(seen);
  // The first look keeps at once, the stop once more.
  expect(runs.get('a')?.kept).toBe(2);
});
