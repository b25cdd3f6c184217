import { Link, useLocation } from 'react-router';

/** From any page of a room to its others. */
export function SubNav({ name, places }: { name: string; places: readonly (readonly [to: string, label: string])[] }) {
  const { pathname } = useLocation();
  return (
    <nav aria-label={name} className="flex flex-wrap gap-x-4 text-[0.95rem]">
      {places.map(([to, label]) => (
        <Link
          key={to}
          to={to}
          aria-current={pathname === to ? 'page' : undefined}
          className="link inline-flex min-h-11 items-center text-ink aria-[current=page]:font-bold aria-[current=page]:no-underline"
        >
          {label}
        </Link>
      ))}
    </nav>
  );
}
