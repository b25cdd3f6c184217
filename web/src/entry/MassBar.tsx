import { useShow } from '../parts/workshop';

export interface Part {
  name: string;
  mg: number;
  tone: 'good' | 'by' | 'loss' | 'missing';
}

const FILL: Record<Part['tone'], string> = {
  good: 'var(--leaf)',
  by: 'var(--husk)',
  loss: 'url(#hatch)',
  missing: 'url(#hatch-missing)',
};

/** Where what went in has gone so far, at scale; what is missing is hatched in crimson. */
export function MassBar({
  inMg,
  parts,
  restName,
  restTone = 'missing',
}: {
  inMg: number;
  parts: readonly Part[];
  restName: string;
  restTone?: Part['tone'];
}) {
  const show = useShow();
  const known = parts.reduce((sum, { mg }) => sum + mg, 0);
  if (inMg <= 0 || known <= 0) return null;
  const rest = inMg - known;
  const rows = [
    ...parts.filter(({ mg }) => mg > 0),
    ...(rest > 0 ? [{ name: restName, mg: rest, tone: restTone }] : []),
  ];
  const total = Math.max(inMg, known);
  let x = 0;
  return (
    <figure className="mt-6">
      <svg
        viewBox="0 0 1000 26"
        preserveAspectRatio="none"
        className="h-6 w-full"
        role="img"
        aria-label={rows.map((row) => `${row.name} ${show.mass(row.mg)}`).join(', ')}
      >
        <defs>
          <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="6" height="6" fill="var(--sunk)" />
            <rect width="2" height="6" fill="var(--hatch)" />
          </pattern>
          <pattern id="hatch-missing" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
            <rect width="6" height="6" fill="var(--crimson-wash)" />
            <rect width="2" height="6" fill="var(--crimson)" />
          </pattern>
        </defs>
        {rows.map((row) => {
          const width = (1000 * row.mg) / total;
          const at = x;
          x += width;
          return <rect key={row.name} x={at} y={0} width={Math.max(1, width - 2)} height={26} fill={FILL[row.tone]} />;
        })}
      </svg>
      <figcaption className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm">
        {rows.map((row) => (
          <span key={row.name} className={row.tone === 'missing' ? 'font-semibold' : ''}>
            {row.name} <span className="figure">{show.mass(row.mg)}</span>{' '}
            <span className="text-soft">{show.percent(row.mg / inMg)}</span>
          </span>
        ))}
        {rest < 0 && <strong className="text-crimson">{show.mass(-rest)} more than went in</strong>}
      </figcaption>
    </figure>
  );
}
