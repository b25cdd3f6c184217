import { Link, useLocation } from 'react-router';

const PLACES = [
  ['/recipes', 'Recipes'],
  ['/ingredients', 'Ingredients'],
] as const;

/** From anything about recipes to everything else about them. */
export function RecipeNav() {
  const { pathname } = useLocation();
  return (
    <nav aria-label="Recipes" className="flex flex-wrap gap-x-4 text-[0.95rem]">
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
