import { SubNav } from '../parts/SubNav';

const PLACES = [
  ['/station/taste', 'Bench'],
  ['/tastings', 'Tastings'],
  ['/sessions', 'Blind sessions'],
  ['/trials', 'Trials'],
  ['/over-time', 'Over time'],
  ['/matters', 'What matters'],
  ['/words', 'Words'],
  ['/other-makers', 'Other makers'],
] as const;

export const TasteNav = () => <SubNav name="Tasting" places={PLACES} />;

/** Heading of a page about tasting. */
export function TasteHead({ title, children }: { title: string; children?: React.ReactNode }) {
  return (
    <div className="mb-5">
      <TasteNav />
      <h1 className="text-4xl">{title}</h1>
      {children !== undefined && <p className="mt-1 max-w-3xl text-lg text-soft">{children}</p>}
    </div>
  );
}
