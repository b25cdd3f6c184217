import { Link, useSearchParams } from 'react-router';
import { Empty, Loading } from '../parts/pieces';
import { LoadTable, useLoads } from './LoadTable';
import { RoastingHead } from './RoastingNav';

/** Loads that are looked through at once; earlier ones are a press away. */
const AT_ONCE = 400;

/** All loads, newest first; up to six chosen to be laid over one another. */
export function LoadsPage() {
  const [query, setQuery] = useSearchParams();
  const chosen = (query.get('codes') ?? '').split(',').filter(Boolean);
  const before = query.get('before') ?? '';
  const loads = useLoads(AT_ONCE, '', before);
  const put = (name: string, value: string): void =>
    setQuery(
      (now) => {
        if (value === '') now.delete(name);
        else now.set(name, value);
        return now;
      },
      { replace: true },
    );
  const toggle = (code: string): void =>
    put('codes', (chosen.includes(code) ? chosen.filter((row) => row !== code) : [...chosen, code]).join(','));
  if (!loads) return <Loading />;
  return (
    <>
      <RoastingHead title="Roast loads" />
      {loads.length === 0 && before === '' ? (
        <Empty
          title="No load yet."
          action={
            <Link className="button" to="/station/roast">
              To the roaster
            </Link>
          }
        >
          Every load keeps its program, its curve, its signs and what it became; here they can be laid over one another.
        </Empty>
      ) : (
        <>
          <div className="sticky top-32 z-10 my-4 flex min-h-14 flex-wrap items-center gap-4 bg-paper py-2">
            {chosen.length === 0 ? (
              <p className="text-soft">Choose two to six loads to lay them over one another.</p>
            ) : (
              <>
                <Link
                  className={`button ${chosen.length > 1 ? 'button-main' : ''}`}
                  to={`/roasting/compare?codes=${chosen.join(',')}`}
                >
                  Compare {chosen.join(', ')}
                </Link>
                <button type="button" className="button button-quiet" onClick={() => put('codes', '')}>
                  None of them
                </button>
              </>
            )}
          </div>
          <LoadTable loads={loads} chosen={chosen} toggle={toggle} />
          <div className="mt-4 flex gap-3">
            {before !== '' && (
              <button type="button" className="button" onClick={() => put('before', '')}>
                The newest
              </button>
            )}
            {loads.length === AT_ONCE && (
              <button
                type="button"
                className="button"
                onClick={() => {
                  put('before', String(loads.at(-1)?.at ?? ''));
                  window.scrollTo(0, 0);
                }}
              >
                Earlier ones
              </button>
            )}
          </div>
        </>
      )}
    </>
  );
}
