import { Link, useSearchParams } from 'react-router';
import { Chips } from '../parts/fields';
import { Empty, Loading } from '../parts/pieces';
import { LoadTable, useLoads } from './LoadTable';
import { RoastingHead } from './RoastingNav';

const PAGE = 40;
/** Loads among which the families of the filter are looked for. */
const LOOKED = 200;

/** All loads, newest first; up to six chosen to be laid over one another. */
export function LoadsPage() {
  const [query, setQuery] = useSearchParams();
  const family = query.get('family') ?? '';
  const chosen = (query.get('codes') ?? '').split(',').filter(Boolean);
  const before = query.get('before') ?? '';
  const recent = useLoads(LOOKED);
  const loads = useLoads(PAGE, family, before);
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
  if (!loads || !recent) return <Loading />;
  const families = [...new Set(recent.map((row) => row.family))].sort();
  return (
    <>
      <RoastingHead title="Roast loads" />
      {recent.length === 0 ? (
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
          {families.length > 1 && (
            <Chips
              legend="Beans"
              options={[['', 'all'] as const, ...families.map((name) => [name, name] as const)]}
              chosen={[family]}
              choose={([name]) => {
                put('family', name ?? '');
                put('before', '');
              }}
            />
          )}
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
            {loads.length === PAGE && (
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
