import { SubNav } from '../parts/SubNav';

const PLACES = [
  ['/roasting', 'Programs'],
  ['/roasting/loads', 'Loads'],
  ['/roasting/trials', 'Trials'],
  ['/roasting/roasters', 'Roasters'],
] as const;

export const RoastingNav = () => <SubNav name="Roasting" places={PLACES} />;

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
