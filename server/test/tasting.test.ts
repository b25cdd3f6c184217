import type {
  ComesUpView,
  GuestView,
  HistoryView,
  MattersView,
  OutsideView,
  SeatView,
  SessionView,
  SubjectView,
  TastingView,
  VocabularyView,
} from '@wunsch/core/api/taste';
import type { TrialView } from '@wunsch/core/api/trials';
import { asProblem, testServer, type TestServer } from './harness';
import { moulded, nibLot, poured } from './shop';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

const get = async <T>(path: string): Promise<T> => (await server.call('GET', path)).body as T;
const post = (path: string, body: object) => server.call('POST', path, body);

/** Two kinds of bars. */
async function bars(): Promise<[string, string]> {
  await server.reset();
  const lot = await nibLot(server, 'Alpha');
  return [
    await moulded(server, await poured(server, lot, 'Ridge')),
    await moulded(server, await poured(server, lot, 'Shore')),
  ];
}
const sheet = (id: string, more: object = {}) => ({ subject: { of: 'holding', id }, overall: 7, ...more });

describe('guided sheets', () => {
  test('the first impression is the score in the book and eats a bar; going back is another, and what moved is said', async () => {
    const [ridge, shore] = await bars();
    const first = await post('/api/taste/sheets', {
      personId: 'ann',
      eaten: 1,
      sheet: sheet(ridge, {
        scales: { sour: 6, melt: 5 },
        smell: ['Cherry'],
        notes: [{ second: 12, phase: 'opening', word: 'lemon' }],
      }),
    });
    expect(first.status).toBe(201);
    const { tastingId } = first.body as { tastingId: string };
    await post('/api/taste/sheets', { personId: 'ann', sheet: sheet(shore, { tastingId, place: 2, overall: 5 }) });
    const back = await post('/api/taste/sheets', {
      personId: 'ann',
      sheet: sheet(ridge, { tastingId, visit: 2, overall: 7.5, scales: { sour: 4, melt: 5 } }),
    });
    expect(back.status).toBe(201);
    const { tastings } = await get<{ tastings: TastingView[] }>('/api/taste/tastings');
    expect(tastings).toHaveLength(1);
    expect(tastings[0]?.sheets).toHaveLength(3);
    expect(tastings[0]?.changes).toEqual([
      expect.objectContaining({ scale: 'overall', from: 7, to: 7.5 }),
      expect.objectContaining({ scale: 'sour', from: 6, to: 4 }),
    ]);
    const { subjects } = await get<{ subjects: SubjectView[] }>('/api/taste/subjects?find=ridge');
    expect(subjects.find(({ subject }) => subject.id === ridge)?.pieces).toBe(39);
    const { products } = await get<HistoryView>('/api/taste/history');
    expect(products.find(({ name }) => name === 'Ridge')?.batches[0]?.score).toBe(7);
  });

  test('refused: a tasting that is none, a score over ten, what is no food; nothing is kept of it', async () => {
    const [ridge] = await bars();
    for (const bad of [
      sheet(ridge, { tastingId: 'nobody', visit: 2 }),
      sheet(ridge, { overall: 11 }),
      sheet('nothing'),
      sheet(ridge, { scales: { salty: 3 } }),
    ])
      expect((await post('/api/taste/sheets', { personId: 'ann', sheet: bad })).status).toBeGreaterThanOrEqual(400);
    expect((await get<{ tastings: TastingView[] }>('/api/taste/tastings')).tastings).toEqual([]);
  });

  test('words grow, are joined and parted; what was said stays', async () => {
    const [ridge] = await bars();
    await post('/api/taste/sheets', { personId: 'ann', sheet: sheet(ridge, { smell: ['sour cherry', 'cherry'] }) });
    const act = (body: object) => post('/api/taste/words', { personId: 'ann', act: body });
    await act({ kind: 'join', word: 'sour cherry', into: 'cherry' });
    let { words } = await get<VocabularyView>('/api/taste/words');
    expect(words[0]).toEqual({ word: 'cherry', near: ['sour cherry'], uses: 2 });
    expect(asProblem(await act({ kind: 'join', word: 'cherry', into: 'sour cherry' })).code).toBe('taste/same-word');
    await act({ kind: 'part', word: 'sour cherry' });
    ({ words } = await get<VocabularyView>('/api/taste/words'));
    expect(words.find(({ word }) => word === 'sour cherry')?.uses).toBe(1);
    const { groups } = await get<VocabularyView>('/api/taste/words');
    const bean = groups.find(({ kind }) => kind === 'bean')?.group ?? '';
    const up = await get<ComesUpView>(`/api/taste/words/of?group=${encodeURIComponent(bean)}`);
    expect(up.words.map(({ word }) => word)).toEqual(['cherry', 'sour cherry']);
  });

  test('a bar of another maker is kept outside the ledger, tasted and photographed', async () => {
    await bars();
    const { body } = await post('/api/taste/outside', {
      personId: 'ann',
      bar: { maker: 'Quay workshop', bar: 'Delta 72', cocoaPct: 72, price: 7.5, bestBefore: '2027-05-01' },
    });
    const { id } = body as { id: string };
    await post('/api/taste/sheets', {
      personId: 'ann',
      sheet: { subject: { of: 'outside', id }, overall: 6.5 },
    });
    const { bars: kept } = await get<{ bars: OutsideView[] }>('/api/taste/outside');
    expect(kept[0]).toMatchObject({ sheets: 1, score: 6.5, bar: { cocoaPct: 72 } });
    const refused = await post('/api/taste/outside', { personId: 'ann', bar: { maker: '', bar: 'x', cocoaPct: 172 } });
    expect(asProblem(refused).errors.map(({ path }) => path)).toEqual(
      expect.arrayContaining(['bar.maker', 'bar.cocoaPct']),
    );
  });
});

describe('blind sessions', () => {
  const plan = (ids: string[], more: object = {}) => ({
    personId: 'ann',
    session: {
      name: 'Ridge or shore',
      question: 'Which would you eat again?',
      bars: ids.map((id, i) => ({ subject: { of: 'holding', id }, name: ['Ridge', 'Shore'][i] })),
      tasters: 3,
      seed: 7,
      ...more,
    },
  });

  test('three guests by codes; no name and no score before it is opened; then the answer', async () => {
    const ids = await bars();
    const { id } = (await post('/api/taste/sessions', plan(ids))).body as { id: string };
    const guest = await server.call('GET', `/api/taste/guest/${id}`);
    expect(JSON.stringify(guest.body)).not.toMatch(/Ridge"|Shore/);
    expect((guest.body as GuestView).bars).toBe(2);
    const host = await get<SessionView>(`/api/taste/sessions/${id}`);
    const seats: SeatView[] = [];
    for (const taster of ['Kim', 'Lou', 'Max']) {
      const { body } = await post(`/api/taste/guest/${id}/seats`, { taster });
      seats.push(body as SeatView);
    }
    expect(new Set(seats.map(({ seat }) => seat)).size).toBe(3);
    // Sitting down again finds the same seat; a fourth finds none.
    expect(((await post(`/api/taste/guest/${id}/seats`, { taster: 'kim' })).body as SeatView).seat).toBe(
      seats[0]?.seat,
    );
    expect(asProblem(await post(`/api/taste/guest/${id}/seats`, { taster: 'Nat' })).code).toBe('taste/full');
    for (const [i, { seat, codes }] of seats.entries())
      for (const code of codes) {
        const bar = host.codes.indexOf(code);
        const answer = await post(`/api/taste/guest/${id}/seats/${seat}/sheets`, {
          code,
          overall: bar === 0 ? 7 + i * 0.5 : 5 + i * 0.4,
          smell: ['honey'],
        });
        expect(answer.status).toBe(201);
      }
    const during = await get<SessionView>(`/api/taste/sessions/${id}`);
    expect(during.result).toBeNull();
    expect(during.seats.map(({ done }) => done)).toEqual([2, 2, 2]);
    expect(asProblem(await post(`/api/taste/sessions/${id}/state`, { personId: 'ann', state: 'opened' })).code).toBe(
      'taste/not-closed',
    );
    await post(`/api/taste/sessions/${id}/state`, { personId: 'ann', state: 'closed' });
    const late = await post(`/api/taste/guest/${id}/seats/0/sheets`, { code: host.codes[0], overall: 1 });
    expect(asProblem(late).code).toBe('taste/closed');
    const { body } = await post(`/api/taste/sessions/${id}/state`, { personId: 'ann', state: 'opened' });
    const { result } = body as SessionView;
    expect(result?.verdict.bars.map(({ bar }) => bar)).toEqual(['Ridge', 'Shore']);
    expect(result?.verdict.sentence).toMatch(/^Ridge is better than Shore/);
    expect(result?.verdict.tasters).toEqual([]);
    // What the panel said counts for the batches.
    const { products } = await get<HistoryView>('/api/taste/history');
    expect(products.find(({ name }) => name === 'Ridge')?.batches[0]).toMatchObject({ score: 7.5, tasters: 3 });
    const own = await get<SeatView>(`/api/taste/guest/${id}/seats/0`);
    expect(own.names).toHaveLength(2);
    expect(own.palate?.n).toBe(2);
  });

  test('codes and orders stay as they were; the sheet of codes is a PDF, the address a picture', async () => {
    const ids = await bars();
    const { id } = (await post('/api/taste/sessions', plan(ids))).body as { id: string };
    const [a, b] = [
      await get<SessionView>(`/api/taste/sessions/${id}`),
      await get<SessionView>(`/api/taste/sessions/${id}`),
    ];
    expect(a.codes).toEqual(b.codes);
    expect(a.seats).toEqual(b.seats);
    expect((await server.app.inject(`/api/taste/sessions/${id}/codes`)).rawPayload.subarray(0, 5).toString()).toBe(
      '%PDF-',
    );
    expect((await server.app.inject(`/api/taste/sessions/${id}/qr`)).body).toMatch(/^<svg/);
  });

  test('refused: one bar, one name twice, what is not here, a code that is not served', async () => {
    const ids = await bars();
    expect((await post('/api/taste/sessions', plan([ids[0]]))).status).toBe(422);
    const twice = plan(ids);
    (twice.session.bars[1] as { name: string }).name = 'ridge';
    expect(asProblem(await post('/api/taste/sessions', twice)).code).toBe('taste/one-name');
    expect(asProblem(await post('/api/taste/sessions', plan(['x', ids[1]]))).errors[0]?.path).toBe('session.bars.0');
    const { id } = (await post('/api/taste/sessions', plan(ids))).body as { id: string };
    await post(`/api/taste/guest/${id}/seats`, { taster: 'Kim' });
    const host = await get<SessionView>(`/api/taste/sessions/${id}`);
    const other = ['100', '101', '102'].find((code) => !host.codes.includes(code));
    expect(asProblem(await post(`/api/taste/guest/${id}/seats/0/sheets`, { code: other, overall: 5 })).code).toBe(
      'taste/no-code',
    );
    expect((await post(`/api/taste/guest/${id}/seats/1/sheets`, { code: host.codes[0], overall: 5 })).status).toBe(404);
  });
});

describe('trials', () => {
  test('planned, made through the book, tasted, read: what to make next', async () => {
    const [ridge, shore] = await bars();
    const design = await post('/api/calc/trials/design', {
      factors: [{ factor: 'grindH', levels: [24, 36, 48] }],
      design: 'ladder',
    });
    expect((design.body as { arms: number[][] }).arms).toEqual([[24], [36], [48]]);
    const { id } = (
      await post('/api/trials', {
        personId: 'ann',
        trial: {
          name: 'How long on the stones',
          factors: [{ factor: 'grindH', levels: [24, 36, 48] }],
          design: 'ladder',
          arms: [[24], [36], [48]],
        },
      })
    ).body as { id: string };
    const codeOf = async (holdingId: string): Promise<string> =>
      (await get<{ subjects: SubjectView[] }>('/api/taste/subjects')).subjects.find(
        ({ subject }) => subject.id === holdingId,
      )?.batchCode ?? '';
    const [a, b] = [await codeOf(ridge), await codeOf(shore)];
    await post(`/api/trials/${id}/made`, { personId: 'ann', arm: 0, code: a });
    await post(`/api/trials/${id}/made`, { personId: 'ann', arm: 2, code: b });
    expect(asProblem(await post(`/api/trials/${id}/made`, { personId: 'ann', arm: 1, code: a })).code).toBe(
      'trials/in-trial',
    );
    expect((await post(`/api/trials/${id}/made`, { personId: 'ann', arm: 1, code: 'B999' })).status).toBe(404);
    await post('/api/taste/sheets', { personId: 'ann', sheet: sheet(ridge, { overall: 5 }) });
    await post('/api/taste/sheets', { personId: 'ann', sheet: sheet(shore, { overall: 6.5 }) });
    const view = await get<TrialView>(`/api/trials/${id}`);
    expect(view.made.map(({ arm, scores }) => [arm, scores])).toEqual([
      [0, [5]],
      [2, [6.5]],
    ]);
    expect(view.verdict.scored).toBe(2);
    expect(view.verdict.sentence).toMatch(/^Of the arms tasted, 48 h does best so far/);
    expect(view.verdict.next).not.toBeNull();
    await server.call('DELETE', `/api/trials/${id}/made/${a}`, {});
    expect((await get<TrialView>(`/api/trials/${id}`)).made).toHaveLength(1);
    const few = await post('/api/calc/trials/design', {
      factors: [
        { factor: 'grindH', levels: [24, 36, 48] },
        { factor: 'restDays', levels: [7, 21] },
      ],
      design: 'small',
      count: 2,
    });
    expect(asProblem(few).code).toBe('trials/too-few');
  });

  test('an opened blind session of a trial speaks before the bench', async () => {
    const ids = await bars();
    const trial = {
      name: 'Which place',
      factors: [{ factor: 'restDays', levels: [7, 21] }],
      design: 'ladder',
      arms: [[7], [21]],
    };
    const { id: trialId } = (await post('/api/trials', { personId: 'ann', trial })).body as { id: string };
    const { subjects } = await get<{ subjects: SubjectView[] }>('/api/taste/subjects');
    for (const [arm, id] of ids.entries()) {
      const code = subjects.find(({ subject }) => subject.id === id)?.batchCode ?? '';
      await post(`/api/trials/${trialId}/made`, { personId: 'ann', arm, code });
      await post('/api/taste/sheets', { personId: 'ann', sheet: sheet(id, { overall: 2 }) });
    }
    const names = ['Ridge', 'Shore'];
    const session = {
      name: 'Panel',
      bars: ids.map((id, i) => ({ subject: { of: 'holding', id }, name: names[i] })),
      tasters: 4,
      seed: 3,
      trialId,
    };
    const { id } = (await post('/api/taste/sessions', { personId: 'ann', session })).body as { id: string };
    const host = await get<SessionView>(`/api/taste/sessions/${id}`);
    for (const [i, taster] of ['Kim', 'Lou', 'Max', 'Nat'].entries()) {
      const { seat, codes } = (await post(`/api/taste/guest/${id}/seats`, { taster })).body as SeatView;
      for (const code of codes)
        await post(`/api/taste/guest/${id}/seats/${seat}/sheets`, {
          code,
          overall: (host.codes.indexOf(code) === 0 ? 5 : 7) + (i % 2) * 0.5,
        });
    }
    const before = await get<TrialView>(`/api/trials/${trialId}`);
    expect(before.made.map(({ scores }) => scores)).toEqual([[2], [2]]);
    for (const state of ['closed', 'opened']) await post(`/api/taste/sessions/${id}/state`, { personId: 'ann', state });
    const { made, sessions } = await get<TrialView>(`/api/trials/${trialId}`);
    expect(made.map(({ scores }) => scores.length)).toEqual([4, 4]);
    expect((made[1]?.scores[0] ?? 0) - (made[0]?.scores[0] ?? 0)).toBeCloseTo(2, 6);
    expect(sessions).toEqual([{ id, name: 'Panel', state: 'opened' }]);
  });

  test('what matters says that it cannot tell from two batches', async () => {
    const [ridge] = await bars();
    await post('/api/taste/sheets', { personId: 'ann', sheet: sheet(ridge) });
    const { beans } = await get<MattersView>('/api/taste/matters');
    expect(beans[0]?.verdict.sentence).toMatch(/1 tasted batch: from 8 on/);
  });
});
