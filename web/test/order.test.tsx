/** @jest-environment jsdom */
import { cleanup, screen, within } from '@testing-library/react';
import type { DeliveryView, OrderView } from '@wunsch/core/api/orders';
import { Order } from '../src/orders/Order';
import { NOBODY } from '../src/parts/save';
import { field, fill, hands, press, refusal, Server, show, type Setting } from './page';

/* An order on screen: what is taken for it, what goes out, what comes back. */

const delivery = (more: Partial<DeliveryView> = {}): DeliveryView =>
  ({
    stepId: 's9',
    at: Date.UTC(2026, 10, 20, 10),
    person: 'Tomo',
    withdrawn: false,
    lines: [
      { holdingId: 'h1', code: 'B050-1', pieces: 24, returned: 0 },
      { holdingId: 'h2', code: 'B061-1', pieces: 12, returned: 12 },
    ],
    ...more,
  }) as DeliveryView;

const order = (more: Partial<OrderView> = {}): OrderView =>
  ({
    id: 'o1',
    number: 'O-7',
    at: 0,
    person: 'Ilse',
    facts: { dueDate: '2026-11-30', note: '' },
    customer: { id: 'c1', name: 'The Quay Deli', channel: 'shops' },
    state: 'open',
    why: '',
    lines: [
      {
        productId: 'p1',
        product: 'Viet Nam bar',
        pieces: 36,
        sent: 0,
        returned: 0,
        missing: 0,
        picks: [
          { holdingId: 'h1', code: 'B050-1', pieces: 24, bestBefore: '2027-05-01' },
          { holdingId: 'h2', code: 'B061-1', pieces: 12, bestBefore: null },
        ],
        coming: [],
      },
    ],
    promise: 'All of it stands packed: it can go today.',
    ready: true,
    late: false,
    totalMilli: 252_000,
    deliveries: [],
    ...more,
  }) as unknown as OrderView;

const see = (more: Partial<OrderView> = {}, setting: Setting = {}): Server => {
  const server = new Server();
  show(
    <ul>
      <Order order={order(more)} />
    </ul>,
    setting,
  );
  return server;
};
beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('what expires first is proposed, and goes out as it stands by one press', async () => {
  const server = see();
  expect(screen.getByRole('status').textContent).toBe('All of it stands packed: it can go today.');
  expect(screen.getByText('best before 2027-05-01')).toBeTruthy();
  expect(screen.getByText('no date')).toBeTruthy();
  await press('Send it out');
  expect(server.sent).toHaveLength(1);
  expect(server.sent[0]).toMatchObject({
    method: 'POST',
    path: '/api/orders/o1/deliver',
    body: {
      personId: 'ilse',
      note: '',
      picks: [
        { holdingId: 'h1', pieces: 24 },
        { holdingId: 'h2', pieces: 12 },
      ],
    },
  });
});

test('other numbers are taken, nought leaves a line out', async () => {
  const server = see();
  await fill('Take from B050-1', '20');
  await fill('Take from B061-1', '0');
  await press('Send it out');
  expect(server.sent[0]?.body['picks']).toEqual([{ holdingId: 'h1', pieces: 20 }]);
});

test.each([
  ['2o', 'is not a number'],
  ['-3', 'is no count'],
  ['2.5', 'is no count'],
  ['', 'is missing: 0 for none'],
])('“%s” pieces are refused at their field, and nothing goes out', async (text, said) => {
  const server = see();
  await fill('Take from B061-1', text);
  expect(field('Take from B061-1').getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByText(said)).toBeTruthy();
  await press('Send it out');
  expect(refusal()).toBe('One of the numbers of pieces cannot be so.');
  expect(server.sent).toEqual([]);
  expect(field('Take from B061-1').value).toBe(text);
});

test('where every line is nought, and where nobody is at the bench, that is said', async () => {
  const server = see();
  await fill('Take from B050-1', '0');
  await fill('Take from B061-1', '0');
  await press('Send it out');
  expect(refusal()).toBe('Nothing goes out: every line is 0.');
  cleanup();
  const other = see({}, { personId: null });
  await press('Send it out');
  expect(refusal()).toBe(NOBODY);
  expect([...server.sent, ...other.sent]).toEqual([]);
});

test('a refusal keeps what was typed; the next press after no answer is the same write', async () => {
  const server = see();
  await fill('Take from B050-1', '23');
  server.refuse('B050-1 held 20 then; 23 pieces asked for.');
  await press('Send it out');
  expect(refusal()).toContain('B050-1 held 20 then');
  expect(field('Take from B050-1').value).toBe('23');
  server.vanish();
  await press('Send it out');
  expect(refusal()).toContain('The server does not answer.');
  await press('Send it out');
  expect(screen.queryByRole('alert')).toBeNull();
  const keys = server.sent.map(({ key }) => key);
  expect(keys[2]).toBe(keys[1]);
  expect(keys[1]).not.toBe(keys[0]);
});

test('what was typed is there after a reload, until it went out', async () => {
  see({ deliveries: [delivery()] });
  await fill('Take from B050-1', '20');
  await press('B050-1 came back');
  await fill('Why', 'box was crushed');
  cleanup();
  see({ deliveries: [delivery()] });
  expect(field('Take from B050-1').value).toBe('20');
  await press('B050-1 came back');
  expect(field('Why').value).toBe('box was crushed');
  await press('Send it out');
  cleanup();
  see();
  expect(field('Take from B050-1').value).toBe('24');
});

test('what is missing and what is coming is said, with where to look', () => {
  const [line] = order().lines;
  see({
    promise: 'Short of 12 until B070 is packed.',
    ready: false,
    late: true,
    lines: [
      {
        ...line,
        missing: 12,
        coming: [
          { words: 'B070, still in moulds', link: '/batch/B070', pieces: 12 },
          { words: 'a batch that is not begun', link: null, pieces: 24 },
        ],
      },
    ] as unknown as OrderView['lines'],
  });
  expect(screen.getByText('12 are missing.')).toBeTruthy();
  expect(screen.getByText('for 2026-11-30, late')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'B070, still in moulds' }).getAttribute('href')).toBe('/batch/B070');
  expect(screen.queryByRole('link', { name: /not begun/ })).toBeNull();
});

test('one that is sent or cancelled takes no more, and says why', () => {
  see({ state: 'cancelled', why: 'closed for the winter' });
  expect(screen.getByText('Cancelled: closed for the winter')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Send it out' })).toBeNull();
  expect(screen.queryByText('Cancel it')).toBeNull();
});

test('it is cancelled with a word', async () => {
  const server = see();
  await hands.click(screen.getByText('Cancel it'));
  await fill('Why is it cancelled', 'ordered twice');
  await press('Cancel what is open');
  expect(server.sent[0]).toMatchObject({
    path: '/api/orders/o1/cancel',
    body: { personId: 'ilse', why: 'ordered twice' },
  });
});

describe('what came back', () => {
  const back = async (): Promise<HTMLElement> => {
    await press('B050-1 came back');
    return screen.getByRole('group', { name: 'What came back of B050-1' });
  };

  test('of what came back whole nothing more can come', () => {
    see({ state: 'sent', deliveries: [delivery()] });
    expect(screen.getByText(/12 came back/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'B061-1 came back' })).toBeNull();
  });

  test('into the store again or thrown away, with the money given back', async () => {
    const server = see({ state: 'sent', deliveries: [delivery()] });
    const box = await back();
    await fill('Came back', '6');
    await fill('Money given back', '42');
    await fill('Why', 'soft snap');
    await hands.click(within(box).getByRole('button', { name: 'Thrown away' }));
    await press('Book what came back');
    expect(server.sent[0]).toMatchObject({
      path: '/api/ledger/steps',
      body: {
        personId: 'ilse',
        command: {
          kind: 'return',
          saleId: 's9',
          holdingId: 'h1',
          pieces: 6,
          refund: 42,
          fate: 'waste',
          why: 'soft snap',
        },
      },
    });
    // It is booked: the panel closes.
    expect(screen.queryByRole('group', { name: 'What came back of B050-1' })).toBeNull();
  });

  test('no money is none; what is no number is told and kept', async () => {
    const server = see({ state: 'sent', deliveries: [delivery()] });
    await back();
    await press('Book what came back');
    expect(refusal()).toBe('How many came back is not a number.');
    await fill('Came back', '6');
    await fill('Money given back', 'all');
    await press('Book what came back');
    expect(refusal()).toBe('The money is not a number.');
    expect(server.sent).toEqual([]);
    await fill('Money given back', '');
    await press('Book what came back');
    expect(server.sent[0]?.body['command']).toMatchObject({ pieces: 6, refund: 0, fate: 'back' });
  });

  test('refused, what was typed stays; a complaint is one press further', async () => {
    const server = see({ state: 'sent', deliveries: [delivery()] });
    const box = await back();
    await fill('Came back', '30');
    server.refuse('24 of B050-1 went out with that sale: 30 cannot come back.');
    await press('Book what came back');
    expect(refusal()).toContain('30 cannot come back');
    expect(field('Came back').value).toBe('30');
    expect(within(box).getByRole('link', { name: 'It is a complaint too' }).getAttribute('href')).toBe(
      '/complaints?code=B050-1',
    );
  });

  test('a delivery that was taken back says so and asks for nothing', () => {
    see({ state: 'sent', deliveries: [delivery({ withdrawn: true })] });
    expect(screen.getByText('A delivery of 20 Nov 2026 was taken back.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /came back/ })).toBeNull();
  });
});
