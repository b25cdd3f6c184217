import { useState } from 'react';
import { Link } from 'react-router';
import type { OrdersView, OrderView } from '@wunsch/core/api/orders';
import { orderTotalMilli } from '@wunsch/core/orders/order';
import { send, useApi } from '../parts/api';
import { hasDraft, useDraft } from '../parts/draft';
import { EditableRows } from '../parts/EditableRows';
import { SelectBox } from '../parts/choice';
import { Listing, type Column } from '../parts/listing';
import { Box, NumberBox } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { Empty, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';
import { StoreNav } from '../store/StoreNav';
import { Order } from './Order';
import { DayBox } from '../parts/dates';
import { useColumns } from '../parts/columns';

const DRAFT = 'order.new';

/** Orders, the soonest first: whether each can go out, and what it still wants. */
export function OrdersPage() {
  const { data, error } = useApi('/api/orders');
  const [adding, setAdding] = useState(() => hasDraft(DRAFT));
  if (!data) return <Loading error={error} />;
  const open = data.orders.filter(({ state }) => state === 'open');
  const done = data.orders.filter(({ state }) => state !== 'open');
  const ready = open.filter((row) => row.ready).length;
  return (
    <div>
      <StoreNav />
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-4xl">Orders</h1>
          {open.length > 0 && (
            <p className="mt-1 text-lg">
              {open.length === 1 ? 'One is open' : `${open.length} are open`};{' '}
              {ready === 0
                ? 'none can go out whole today'
                : ready === open.length
                  ? 'all can go out today'
                  : `${ready === 1 ? 'one' : ready} can go out today`}
              .
            </p>
          )}
        </div>
        <button type="button" className="button button-main" aria-expanded={adding} onClick={() => setAdding(!adding)}>
          Take an order
        </button>
      </div>
      {adding && (
        <div className="mt-5">
          <NewOrder view={data} done={() => setAdding(false)} />
        </div>
      )}
      {open.length === 0 && !adding ? (
        <div className="mt-6">
          <Empty title="No order is open.">
            Take one: it is promised from what stands packed, what expires first on top, then from bars that wait for
            their wrapper and from chocolate on its way.
          </Empty>
        </div>
      ) : (
        <ul className="rows mt-5">
          {open.map((order) => (
            <Order key={order.id} order={order} />
          ))}
        </ul>
      )}
      {done.length > 0 && (
        <Section title="Sent and cancelled" aside={`${done.length}`}>
          <DoneOrders orders={done} />
        </Section>
      )}
    </div>
  );
}

/** Orders that are over: found by customer, channel or number; one of them is looked at above the list. */
function DoneOrders({ orders }: { orders: readonly OrderView[] }) {
  const show = useShow();
  const column = useColumns(show);
  const [open, setOpen] = useState<string | null>(null);
  const looked = orders.find(({ id }) => id === open);
  const columns: Column<OrderView>[] = [
    {
      id: 'number',
      head: 'Order',
      value: ({ number }) => number,
      show: ({ number }) => <span className="code">{number}</span>,
    },
    { id: 'customer', head: 'Customer', value: ({ customer }) => customer.name },
    { id: 'channel', head: 'Channel', value: ({ customer }) => customer.channel, filter: 'every channel', extra: true },
    { id: 'state', head: 'It is', value: ({ state }) => (state === 'cancelled' ? 'cancelled' : 'all sent') },
    column.day('at', 'Taken', ({ at }) => at),
    column.money('total', 'Worth', ({ totalMilli }) => totalMilli),
  ];
  return (
    <>
      {looked && (
        <ul className="rows mb-4">
          <Order order={looked} />
        </ul>
      )}
      <Listing
        label="Orders that are over"
        rows={orders}
        columns={columns}
        rowId={({ id }) => id}
        sort="-at"
        pageSize={20}
        minWidth="30rem"
        marked={({ id }) => id === open}
        tail={({ id, number }) => (
          <button
            type="button"
            className="button button-quiet"
            aria-label={`Look at ${number}`}
            onClick={() => setOpen(id === open ? null : id)}
          >
            {id === open ? 'Close' : 'Look at it'}
          </button>
        )}
      />
    </>
  );
}

interface Typed {
  customerId: string;
  customer: { name: string; channel: string; address: string; contact: string };
  dueDate: string;
  lines: { productId: string; pieces: string; price: string }[];
  note: string;
}
const NEW = 'new';
const EMPTY: Typed = {
  customerId: '',
  customer: { name: '', channel: '', address: '', contact: '' },
  dueDate: '',
  lines: [{ productId: '', pieces: '', price: '' }],
  note: '',
};

/** An order as it is taken: customer, day, lines with the prices of the customer's channel. */
function NewOrder({ view, done }: { view: OrdersView; done: () => void }) {
  const { personId, view: here } = useHere();
  const show = useShow();
  const products = useApi('/api/products').data?.products ?? [];
  const draft = useDraft<Typed>(DRAFT, () => EMPTY);
  const typed = draft.value;
  const [wrong, setWrong] = useState<string[]>([]);
  const { busy, error, run, fail } = useSave();
  const set = (next: Partial<Typed>): void => draft.set((now) => ({ ...now, ...next }));
  const customerId = typed.customerId === '' && view.customers.length === 0 ? NEW : typed.customerId;
  const known = view.customers.find(({ id }) => id === customerId);
  const channel = known?.channel ?? typed.customer.channel;
  const priceOf = (productId: string): string => {
    const price = products
      .find(({ id }) => id === productId)
      ?.facts.prices.find((row) => row.channel.toLowerCase() === channel.toLowerCase())?.price;
    return price === undefined ? '' : typedNumber(price);
  };
  const line = (index: number, next: Partial<Typed['lines'][number]>): void =>
    draft.set((now) => ({ ...now, lines: now.lines.map((own, i) => (i === index ? { ...own, ...next } : own)) }));
  const readable = typed.lines.map(({ pieces, price, productId }) => ({
    pieces: readNumber(pieces) ?? 0,
    price: readNumber(price === '' ? priceOf(productId) : price) ?? 0,
  }));
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    const problems: string[] = [];
    const lines = typed.lines
      .filter(({ productId, pieces }) => productId !== '' || pieces !== '')
      .map(({ productId, pieces, price }, index) => {
        const [n, each] = [readNumber(pieces), readNumber(price === '' ? priceOf(productId) : price)];
        if (productId === '') problems.push(`Line ${index + 1} names no product.`);
        if (n === null) problems.push(`Line ${index + 1}: pieces are not a number.`);
        if (each === null) problems.push(`Line ${index + 1} has no price: that channel has none in the product.`);
        return { productId, pieces: n ?? 0, price: each ?? 0 };
      });
    if (customerId === '') problems.push('Choose a customer.');
    if (customerId === NEW && typed.customer.name.trim() === '') problems.push('The customer has no name.');
    if (customerId === NEW && typed.customer.channel.trim() === '') problems.push('Say by which channel they buy.');
    if (typed.dueDate === '') problems.push('Say for which day.');
    if (lines.length === 0) problems.push('Nothing is ordered.');
    setWrong(problems);
    if (problems.length > 0) return;
    void run(async () => {
      let buyer = customerId;
      if (customerId === NEW) {
        const kept = await send('POST', '/api/orders/customers', { personId, facts: typed.customer }, `${draft.key}-c`);
        buyer = kept.data.id;
      }
      const facts = { customerId: buyer, lines, dueDate: typed.dueDate, note: typed.note };
      await send('POST', '/api/orders', { personId, facts }, draft.key);
    }).then((kept) => {
      if (!kept) return;
      draft.clear();
      done();
    });
  };
  if (products.length === 0)
    return (
      <Empty title="Nothing is sold by a name yet.">
        An order is of products: describe one first, under{' '}
        <Link className="link" to="/products">
          Products
        </Link>
        .
      </Empty>
    );
  return (
    <div role="group" aria-label="A new order" className="grid gap-4 rounded-md bg-sunk p-4">
      <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_12rem]">
        <SelectBox
          label="Customer"
          value={customerId}
          options={[
            ['', 'choose'],
            ...view.customers.map(({ id, name, channel: own }) => [id, `${name}, ${own}`] as const),
            [NEW, 'somebody new'],
          ]}
          onChange={(next) => set({ customerId: next })}
        />
        <DayBox label="For which day" value={typed.dueDate} onChange={(dueDate) => set({ dueDate })} />
      </div>
      {customerId === NEW && (
        <div className="grid gap-3 sm:grid-cols-2">
          {(['name', 'channel', 'address', 'contact'] as const).map((key) => (
            <Box
              key={key}
              label={{ name: 'Name', channel: 'Channel', address: 'Address', contact: 'Telephone or mail' }[key]}
              value={typed.customer[key]}
              placeholder={key === 'channel' ? (view.channels[0] ?? 'shops') : undefined}
              onChange={(text) => set({ customer: { ...typed.customer, [key]: text } })}
            />
          ))}
        </div>
      )}
      <div>
        <EditableRows
          rows={typed.lines}
          columns="sm:grid-cols-[minmax(0,1fr)_7rem_8rem_auto]"
          fewest={1}
          leaveOut={(index) => set({ lines: typed.lines.filter((_, i) => i !== index) })}
          add={() => set({ lines: [...typed.lines, { productId: '', pieces: '', price: '' }] })}
          addWords="Another line"
          fields={(row, index) => (
            <>
              <SelectBox
                label="Product"
                value={row.productId}
                options={[
                  ['', 'choose'],
                  ...products.map(({ id, facts, packed }) => [id, `${facts.name}, ${packed} packed`] as const),
                ]}
                onChange={(productId) => line(index, { productId })}
              />
              <NumberBox label="Pieces" value={row.pieces} onChange={(pieces) => line(index, { pieces })} />
              <NumberBox
                label={`Price (${here.settings.currency})`}
                value={row.price}
                placeholder={priceOf(row.productId)}
                onChange={(price) => line(index, { price })}
              />
            </>
          )}
        />
      </div>
      <div className="flex flex-wrap items-center gap-4">
        <span className="figure text-xl">{show.money(orderTotalMilli(readable))}</span>
        <span className="text-soft">{count(readable.reduce((sum, { pieces }) => sum + pieces, 0))} pieces</span>
      </div>
      <Box label="Note" value={typed.note} onChange={(note) => set({ note })} />
      {wrong.length > 0 && (
        <p role="alert" className="font-semibold text-crimson">
          {wrong.join(' ')}
        </p>
      )}
      <Refusal error={error} />
      <div className="flex flex-wrap gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={save}>
          Keep the order
        </button>
        <button
          type="button"
          className="button button-quiet"
          onClick={() => {
            draft.clear();
            done();
          }}
        >
          Throw it away
        </button>
      </div>
    </div>
  );
}
