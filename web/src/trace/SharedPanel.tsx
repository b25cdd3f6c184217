import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { SharedGroupView, SharedView } from '@wunsch/core/api/recall';
import { ask, useApi } from '../parts/api';
import { Code, KIND_NAMES, Refusal } from '../parts/pieces';
import { count } from '../parts/workshop';

/** What some goods have in common, the likeliest cause first; and everything else that shares it. */
export function SharedPanel({ codes }: { codes: readonly string[] }) {
  const [found, setFound] = useState<SharedView | null>(null);
  const [error, setError] = useState<unknown>(null);
  const asked = codes.join(' ');
  useEffect(() => {
    let here = true;
    // Typing goes on: asked when it pauses.
    const timer = setTimeout(() => {
      ask('/api/trace/shared', { codes: asked.split(' ') })
        .then((answer) => here && setFound(answer))
        .catch((reason: unknown) => here && setError(reason));
    }, 300);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [asked]);
  if (error !== null) return <Refusal error={error} kept={false} />;
  if (!found) return null;
  const [first, ...others] = found.groups;
  // What all of them have, first; what only some have is looked at when nothing else is it.
  const rest = others.filter(({ having, of }) => having === of);
  const some = others.filter(({ having, of }) => having < of);
  return (
    <section aria-label="What they share" className="mt-4 rounded-md bg-leaf-wash px-4 py-3">
      {first ? (
        <>
          <p className="figure text-xl">
            {codes.length === 1 ? 'What lies behind it, the rarest first: ' : 'Most likely: '}
            <Things group={first} />
          </p>
          <p className="text-sm">{first.sentence}</p>
          <Sharing key={first.things[0]?.id} group={first} />
          <Groups groups={rest} />
          {some.length > 0 && (
            <details className="mt-2">
              <summary className="inline-flex min-h-11 cursor-pointer items-center text-sm underline">
                What only some of them share
              </summary>
              <Groups groups={some} />
            </details>
          )}
        </>
      ) : (
        <p>They share nothing that is in the book.</p>
      )}
    </section>
  );
}

const Groups = ({ groups }: { groups: readonly SharedGroupView[] }) => (
  <ol className="rows mt-2">
    {groups.map((group) => (
      <li key={group.things[0]?.kind + (group.things[0]?.id ?? '')} className="py-2">
        <Things group={group} /> <span className="text-sm text-soft">{group.sentence}</span>
        <Sharing group={group} />
      </li>
    ))}
  </ol>
);

function Things({ group }: { group: SharedGroupView }) {
  return (
    <>
      {group.things.map(({ kind, id, words, link }, index) => (
        <span key={kind + id}>
          {index > 0 && ', '}
          {link === null ? (
            words
          ) : (
            <Link className="link" to={link}>
              {words}
            </Link>
          )}
        </span>
      ))}
    </>
  );
}

function Sharing({ group }: { group: SharedGroupView }) {
  const [open, setOpen] = useState(false);
  const [thing] = group.things;
  const { data } = useApi(
    open && thing ? `/api/trace/sharing?kind=${thing.kind}&id=${encodeURIComponent(thing.id)}` : null,
  );
  const goods = data?.goods ?? [];
  return (
    <div>
      <button type="button" className="button button-quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Close' : `Everything that shares it: ${count(group.pieces)} bars`}
      </button>
      {open && data && (
        <>
          <ul className="rows text-sm">
            {goods.map((row) => (
              <li key={row.code} className="flex flex-wrap gap-x-4 py-1">
                <Code code={row.code} kind={row.kind} />
                <span className="flex-1">
                  {row.name}, {KIND_NAMES[row.kind]}
                </span>
                <span>
                  {count(row.here)} here, {count(row.sold)} sold
                </span>
              </li>
            ))}
          </ul>
          {goods.length > 0 && (
            <Link
              className="button mt-2"
              to={`/complaints?codes=${goods.map(({ code }) => code).join(',')}`}
              reloadDocument
            >
              Take all of them up
            </Link>
          )}
        </>
      )}
    </div>
  );
}
