/** @jest-environment jsdom */
import { act, cleanup, screen } from '@testing-library/react';
import { useState } from 'react';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { checkCount, sackStock } from '@wunsch/core/beans/sacks';
import type { SackText } from '../src/beans/inspection-draft';
import { rowsOf } from '../src/beans/inspection-draft';
import { SackList } from '../src/beans/SackList';
import { SackSection } from '../src/beans/SackSection';
import { NOBODY } from '../src/parts/save';
import { field, fill, hands, press, refusal, Server, show, type Setting } from './page';

/* Sacks: weighed one by one against the invoice, looked at where they stand, and what the scale says taken into the book. */

/** The scale on the bench, as a page hears it. */
class Stream {
  static last: Stream | null = null;
  onmessage: (event: { data: string }) => void = () => undefined;
  onerror: () => void = () => undefined;
  closed = false;
  constructor() {
    Stream.last = this;
  }
  close(): void {
    this.closed = true;
  }
}
const scale = (massG: number, more: object = {}): void =>
  act(() =>
    Stream.last?.onmessage({
      data: JSON.stringify({ massG, stable: true, unplugged: false, simulated: true, ...more }),
    }),
  );

beforeEach(() => {
  localStorage.clear();
  globalThis.EventSource = Stream as unknown as typeof EventSource;
});
afterEach(cleanup);

describe('weighed one by one', () => {
  let kept: SackText[] = [];
  function Weighing({ invoice }: { invoice: { sacks: number | null; netG: number | null } }) {
    const [sacks, setSacks] = useState<SackText[]>([]);
    const [inHand, setInHand] = useState<SackText>({ gross: '', tare: '', place: '' });
    kept = sacks;
    return (
      <SackList
        sacks={sacks}
        inHand={inHand}
        change={(next, hand) => {
          setSacks(next);
          setInHand(hand);
        }}
        check={sacks.length === 0 ? null : checkCount(rowsOf(sacks, 'metric'), invoice, 0.5)}
      />
    );
  }
  const page = (setting: Setting = {}): void => void show(<Weighing invoice={{ sacks: 3, netG: 180_000 }} />, setting);
  const wrong = (): string => screen.getByRole('alert').textContent;

  test('tare and place stay from sack to sack, and Enter takes the next', async () => {
    page();
    await fill('Sack 1, gross (kg)', '60.4');
    await fill('Empty sack (kg)', '0,6');
    await fill('Where it is put', 'rack A');
    await press('Next sack');
    expect(field('Sack 2, gross (kg)').value).toBe('');
    await fill('Sack 2, gross (kg)', '60.8');
    await hands.keyboard('{Enter}');
    expect(kept).toEqual([
      { gross: '60.4', tare: '0,6', place: 'rack A' },
      { gross: '60.8', tare: '0,6', place: 'rack A' },
    ]);
    expect(field('Sack 3, gross (kg)').value).toBe('');
  });

  test.each([
    ['', '', 'Sack 1: gross weight is missing.'],
    ['6o', '', 'Sack 1: gross weight is not a number.'],
    ['60', 'x', 'Sack 1: tare is not a number.'],
    ['0.5', '0.6', 'Sack 1: the empty sack is heavier than the full one.'],
    ['60400', '0.6', 'Sack 1: is more than a sack holds: is it in the right unit?'],
    ['60', '-1', 'Sack 1: weights are more than nothing.'],
  ])('“%s” with a sack of “%s”: %s', async (gross, tare, said) => {
    page();
    await fill('Sack 1, gross (kg)', gross);
    await fill('Empty sack (kg)', tare);
    await press('Next sack');
    expect(wrong()).toBe(said);
    expect(kept).toEqual([]);
    expect(field('Sack 1, gross (kg)').value).toBe(gross);
  });

  test('a sack that was weighed wrongly is taken out; the others keep their order', async () => {
    page();
    for (const gross of ['60', '16', '61']) {
      await fill(/gross/u, gross);
      await press('Next sack');
    }
    await press('Take sack 2 out');
    expect(kept.map(({ gross }) => gross)).toEqual(['60', '61']);
  });

  test('what is short of the invoice is said as soon as it is', async () => {
    page();
    for (const gross of ['59', '59', '59']) {
      await fill(/gross/u, gross);
      await press('Next sack');
    }
    const said = screen.getByText('177.0 kg net, 3.0 kg (1.7 %) short of the invoice, more than the 0.5 % let pass.');
    expect(said.className).toContain('crimson');
  });

  test('a figure comes off the scale when it has settled, and says when that one is simulated', async () => {
    page();
    const take = (): HTMLButtonElement => screen.getByRole('button', { name: /scale/u });
    expect(take().disabled).toBe(true);
    scale(60_420, { stable: false });
    expect(take().textContent).toContain('The scale has not settled');
    scale(60_420);
    expect(take().textContent).toContain('(simulated)');
    await hands.click(take());
    expect(field('Sack 1, gross (kg)').value).toBe('60.42');
    scale(60_420, { unplugged: true });
    expect(take().disabled).toBe(true);
    act(() => Stream.last?.onerror());
    expect(take().disabled).toBe(true);
  });

  test('in pounds where the workshop weighs so', async () => {
    page({ settings: { massSystem: 'imperial' } });
    scale(45_359.237);
    await hands.click(screen.getByRole('button', { name: /scale/u }));
    expect(field('Sack 1, gross (lb)').value).toBe('100');
  });

  test('the scale is let go of with the page', () => {
    page();
    const stream = Stream.last;
    cleanup();
    expect(stream?.closed).toBe(true);
  });
});

describe('on hand', () => {
  const rows = [1, 2, 3].map((no) => ({ no, grossG: 60_600, tareG: 600, place: no === 3 ? '' : 'rack A' }));
  const lot = (more: Partial<BeanLotView> = {}): BeanLotView =>
    ({
      code: 'L004',
      facts: { sacks: 3, form: 'beans', invoiceNetG: null },
      sackRows: rows,
      sacks: sackStock(rows, 100_000, new Map(), new Map()),
      count: checkCount(rows, { sacks: 3, netG: 181_000 }, 0.5),
      receiptId: 's1',
      receivedG: 181_000,
      leftG: 100_000,
      lookDueAt: Date.UTC(2026, 10, 30, 9),
      ...more,
    }) as BeanLotView;
  const page = (of = lot(), setting: Setting = {}): Server => {
    const server = new Server({
      '/api/ledger/steps/s1': {
        step: { command: { kind: 'receive', netG: 181_000, name: 'Ridge' }, minutes: 20, at: Date.UTC(2026, 10, 1, 9) },
      },
    });
    show(<SackSection lot={of} />, setting);
    return server;
  };
  const said = (): string[] =>
    screen.queryAllByRole('listitem').map(({ textContent }) => textContent.replaceAll(/\s/gu, ' '));

  test('each says what is left of it and where it is; empty ones are gone', () => {
    page();
    expect(said()).toEqual(['sack 240.00 kgrack Aopen', 'sack 360.00 kgno placewhole']);
    expect(screen.getByText(/look again/u).textContent).toContain('30 Nov');
  });

  test('where none was weighed, or all are empty, it says so', () => {
    page(lot({ sackRows: [], sacks: [], count: null }));
    expect(screen.getByText('Not weighed one by one: 3 by the invoice.')).toBeTruthy();
    cleanup();
    page(lot({ leftG: 0, sacks: sackStock(rows, 0, new Map(), new Map()) }));
    expect(screen.getByText('All 3 are empty.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'I have looked at them' })).toBeNull();
  });

  test('a look is kept with what was seen; what was moved has a new place', async () => {
    const server = page();
    await press('I have looked at them');
    await hands.click(screen.getByRole('checkbox', { name: /Webbing/u }));
    expect(screen.getByText(/Put the lot on hold/u)).toBeTruthy();
    await fill(/^All moved to/u, ' cold store ');
    await fill('Note', 'two moths');
    await press('Looked, save it');
    expect(server.sent[0]).toMatchObject({
      path: '/api/beans/lots/L004/records',
      body: {
        personId: 'ilse',
        record: {
          kind: 'look',
          signs: true,
          note: 'two moths',
          moved: [
            { no: 2, place: 'cold store' },
            { no: 3, place: 'cold store' },
          ],
        },
      },
    });
    expect(screen.getByRole('button', { name: 'I have looked at them' })).toBeTruthy();
  });

  test('a look is half done after a reload, and kept where nobody is chosen', async () => {
    page();
    await press('I have looked at them');
    await fill('Note', 'dry and clean');
    cleanup();
    const server = page(lot(), { personId: null });
    expect(field('Note').value).toBe('dry and clean');
    await press('Looked, save it');
    expect(refusal()).toBe(NOBODY);
    expect(server.sent).toEqual([]);
    expect(field('Note').value).toBe('dry and clean');
    await press('Not now');
    await press('I have looked at them');
    expect(field('Note').value).toBe('');
  });

  const untouched = (more: Partial<BeanLotView> = {}): BeanLotView =>
    lot({ leftG: 181_000, sacks: sackStock(rows, 180_000, new Map(), new Map()), ...more });

  test('while nothing has left it, the book takes what the scale says; the invoice stays what is paid', async () => {
    const server = page(untouched());
    await press(/^Book the weighed/u);
    expect(server.sent[0]).toMatchObject({
      path: '/api/ledger/steps/s1/correct',
      body: {
        command: { kind: 'receive', name: 'Ridge', netG: 180_000, invoiceNetG: 181_000 },
        personId: 'ilse',
        minutes: 20,
        at: '2026-11-01T09:00:00.000Z',
        reason: 'sacks weighed one by one',
      },
    });
  });

  test('a correction that is refused says why', async () => {
    const server = page(untouched());
    server.refuse('B051 would be short of beans.');
    await press(/^Book the weighed/u);
    expect(refusal()).toBe('B051 would be short of beans.');
  });

  test.each([
    ['once something has left it', lot({ leftG: 120_000 })],
    ['where both say the same', untouched({ receivedG: 180_020, leftG: 180_020 })],
    ['of wet beans, which lose water', untouched({ facts: { sacks: 3, form: 'wet' } as BeanLotView['facts'] })],
  ])('the book is not asked about %s', (_, of) => {
    page(of);
    expect(screen.queryByRole('button', { name: /^Book the weighed/u })).toBeNull();
  });
});
