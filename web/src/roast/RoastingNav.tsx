import { Link, useLocation } from 'react-router';

const PLACES = [
  ['/roasting', 'Programs'],
  ['/roasting/loads', 'Loads'],
  ['/roasting/trials', 'Trials'],
  ['/roasting/roasters', 'Roasters'],
] as const;

/** From anything about roasting to everything else about it. */
export function RoastingNav() {
  const { pathname } = useLocation();
  return (
    <nav aria-label="Roasting" className="flex flex-wrap gap-x-4 text-[0.95rem]">
      {PLACES.map(([to, name]) => (
        <Link
          key={to}
          to={to}
          aria-current={pathname === to ? 'page' : undefined}
          className="link inline-flex min-h-11 items-center text-ink aria-[current=page]:font-bold aria-[current=page]:no-underline"
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}

/** Heading of a page about roasting. */
export function RoastingHead({ title, children }: { title: string; children?: React.ReactNode }) {
  return (
    <div className="mb-5">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-4xl">{title}</h1>
        <RoastingNav />
      </div>
      {children !== undefined && <p className="mt-1 max-w-3xl text-lg text-soft">{children}</p>}
    </div>
  );
}
