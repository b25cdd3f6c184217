import { useState } from 'react';
import { Link } from 'react-router';
import type { DeliveryView, OrderView } from '@wunsch/core/api/orders';
import { send } from '../parts/api';
import { useKept } from '../parts/draft';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber, typedNumber, unreadable, wrongCount } from '../parts/number';
import { Code, Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';

/** One order: when it can go, what is taken for it, what went out and what came back. */
export function Order({ order }: { order: OrderView }) {
  const { personId } = useHere();
  const show = useShow();
  const [typed, setTyped, forgetTyped] = useKept<Record<string, string>>(`order.${order.id}.picks`, {});
  const [why, setWhy, forgetWhy] = useKept(`order.${order.id}.cancel`, '');
  const { busy, error, run, fail } = useSave();
  const picks = order.lines.flatMap((line) => line.picks.map((pick) => ({ ...pick, product: line.product })));
  const path = `/api/orders/${order.id}` as const;
  const wrongWith = ({ holdingId }: { holdingId: string }): string | undefined => {
    const text = typed[holdingId];
    if (text === undefined) return undefined;
    if (text.trim() === '') return 'is missing: 0 for none';
    return unreadable(text) ?? wrongCount(text);
  };
  const send_ = (): void => {
    if (personId === null) return fail(NOBODY);
    if (picks.some((pick) => wrongWith(pick) !== undefined)) return fail('One of the numbers of pieces cannot be so.');
    const going = picks
      .map(({ holdingId, pieces }) => ({ holdingId, pieces: readNumber(typed[holdingId] ?? '') ?? pieces }))
      .filter(({ pieces }) => pieces > 0);
    if (going.length === 0) return fail('Nothing goes out: every line is 0.');
    void run(() => send('POST', `${path}/deliver`, { personId, picks: going, note: '' })).then(
      (kept) => kept && forgetTyped(),
    );
  };
  const cancel = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `${path}/cancel`, { personId, why })).then((kept) => kept && forgetWhy());
  };
  return (
    <li className="py-4" aria-label={`Order ${order.number}`}>
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <span className="code text-xl">{order.number}</span>
        <h2 className="text-2xl">{order.customer.name}</h2>
        <span className="text-soft">{order.customer.channel}</span>
        <span className={order.late ? 'font-semibold text-crimson' : ''}>
          {order.state === 'open' ? `for ${order.facts.dueDate}${order.late ? ', late' : ''}` : order.state}
        </span>
        <span className="flex-1" />
        <span className="figure text-xl">{show.money(order.totalMilli)}</span>
      </div>
      {order.promise !== '' && (
        <p className={`mt-1 text-lg ${order.ready ? 'text-leaf' : ''}`} role="status">
          {order.promise}
        </p>
      )}
      {order.facts.note !== '' && <p className="mt-1">“{order.facts.note}”</p>}
      {order.state === 'cancelled' && order.why !== '' && <p className="mt-1">Cancelled: {order.why}</p>}
      <ul className="mt-2">
        {order.lines.map((line) => (
          <li key={line.productId} className="border-t border-rule py-2">
            <div className="flex flex-wrap items-baseline gap-x-4">
              <span className="min-w-40 text-lg">{line.product}</span>
              <span className="text-soft">
                {count(line.pieces)} ordered{line.sent > 0 && `, ${count(line.sent)} sent`}
                {line.returned > 0 && `, ${count(line.returned)} came back`}
              </span>
            </div>
            {order.state === 'open' &&
              line.picks.map(({ holdingId, code, pieces, bestBefore }) => (
                <div
                  key={holdingId}
                  className="mt-1 grid max-w-xl grid-cols-[6rem_minmax(0,1fr)_8rem] items-end gap-x-4"
                >
                  <span className="pb-3">
                    <Code code={code} kind="packed" />
                  </span>
                  <span className="pb-3 text-sm text-soft">
                    {bestBefore === null ? 'no date' : `best before ${bestBefore}`}
                  </span>
                  <NumberBox
                    label={`Take from ${code}`}
                    value={typed[holdingId] ?? typedNumber(pieces)}
                    problem={wrongWith({ holdingId })}
                    onChange={(text) => setTyped((now) => ({ ...now, [holdingId]: text }))}
                  />
                </div>
              ))}
            {line.coming.map(({ words, link, pieces }) => (
              <p key={words} className="text-sm">
                {count(pieces)} from{' '}
                {link === null ? (
                  words
                ) : (
                  <Link className="link" to={link}>
                    {words}
                  </Link>
                )}
              </p>
            ))}
            {line.missing > 0 && order.state === 'open' && (
              <p className="text-sm font-semibold text-crimson">{count(line.missing)} are missing.</p>
            )}
          </li>
        ))}
      </ul>
      {order.state === 'open' && (
        <div className="mt-2 flex flex-wrap items-end gap-3">
          {picks.length > 0 && (
            <button type="button" className="button button-main" disabled={busy} onClick={send_}>
              Send it out
            </button>
          )}
          <a className="button" href={`${path}/pick-list.pdf`} target="_blank" rel="noreferrer">
            Pick list
          </a>
          <details>
            <summary className="inline-flex min-h-11 cursor-pointer items-center underline">Cancel it</summary>
            <div className="flex flex-wrap items-end gap-3">
              <Box className="w-64" label="Why is it cancelled" value={why} onChange={setWhy} />
              <button type="button" className="button" disabled={busy} onClick={cancel}>
                Cancel what is open
              </button>
            </div>
          </details>
        </div>
      )}
      <Refusal error={error} />
      {order.deliveries.map((delivery) => (
        <Delivery key={delivery.stepId} order={order} delivery={delivery} />
      ))}
    </li>
  );
}

const FATES = [
  ['back', 'Into the store again'],
  ['waste', 'Thrown away'],
] as const;

/** What went out at once: its note, and what of it came back. */
function Delivery({ order, delivery }: { order: OrderView; delivery: DeliveryView }) {
  const { personId } = useHere();
  const show = useShow();
  const [code, setCode] = useState<string | null>(null);
  const [typed, setTyped, forget] = useKept(`return.${delivery.stepId}.${code}`, { pieces: '', refund: '', why: '' });
  const [fate, setFate] = useState<'back' | 'waste'>('back');
  const { busy, error, run, fail } = useSave();
  const line = delivery.lines.find((row) => row.holdingId === code);
  const giveBack = (): void => {
    if (personId === null) return fail(NOBODY);
    const pieces = readNumber(typed.pieces);
    const refund = typed.refund.trim() === '' ? 0 : readNumber(typed.refund);
    if (pieces === null || refund === null || line === undefined)
      return fail(pieces === null ? 'How many came back is not a number.' : 'The money is not a number.');
    const command = {
      kind: 'return',
      saleId: delivery.stepId,
      holdingId: line.holdingId,
      pieces,
      refund,
      fate,
      why: typed.why,
      note: '',
    };
    void run(() => send('POST', '/api/ledger/steps', { personId, command })).then((kept) => {
      if (!kept) return;
      forget();
      setCode(null);
    });
  };
  if (delivery.withdrawn)
    return <p className="mt-3 text-sm text-soft">A delivery of {show.day(delivery.at)} was taken back.</p>;
  return (
    <div className="mt-3 border-l-4 border-rule pl-3">
      <p className="text-sm">
        Sent {show.moment(delivery.at)} by {delivery.person}:{' '}
        {delivery.lines.map(({ code: own, pieces, returned }, index) => (
          <span key={own}>
            {index > 0 && ', '}
            {count(pieces)} of <Code code={own} kind="packed" />
            {returned > 0 && ` (${count(returned)} came back)`}
          </span>
        ))}
        .
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <a
          className="button button-quiet"
          href={`/api/orders/${order.id}/deliveries/${delivery.stepId}/note.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          Delivery note
        </a>
        <Link className="link inline-flex min-h-11 items-center text-sm" to={`/step/${delivery.stepId}`}>
          In the book
        </Link>
        {delivery.lines.map(({ holdingId, code: own, pieces, returned }) =>
          returned < pieces ? (
            <button
              key={holdingId}
              type="button"
              className="button button-quiet"
              aria-expanded={code === holdingId}
              onClick={() => setCode(code === holdingId ? null : holdingId)}
            >
              {own} came back
            </button>
          ) : null,
        )}
      </div>
      {line && (
        <div role="group" aria-label={`What came back of ${line.code}`} className="mt-2 grid gap-3">
          <div className="flex flex-wrap items-end gap-3">
            <NumberBox
              className="w-28"
              label="Came back"
              value={typed.pieces}
              onChange={(pieces) => setTyped((now) => ({ ...now, pieces }))}
            />
            <NumberBox
              className="w-36"
              label="Money given back"
              value={typed.refund}
              onChange={(refund) => setTyped((now) => ({ ...now, refund }))}
            />
            <Box
              className="w-56"
              label="Why"
              value={typed.why}
              onChange={(why) => setTyped((now) => ({ ...now, why }))}
            />
          </div>
          <Chips
            legend="What becomes of it"
            options={FATES}
            chosen={[fate]}
            choose={([next]) => setFate(next ?? 'back')}
          />
          <div className="flex flex-wrap gap-3">
            <button type="button" className="button" disabled={busy} onClick={giveBack}>
              Book what came back
            </button>
            <Link
              className="link inline-flex min-h-11 items-center"
              to={`/complaints?code=${encodeURIComponent(line.code)}`}
            >
              It is a complaint too
            </Link>
          </div>
        </div>
      )}
      <Refusal error={error} />
    </div>
  );
}
