/** A label for a tub, block, lot, sack or mould: its code large, with a QR code that opens it. */
export const TagLink = ({
  code,
  words = 'Label for it',
  sacks = false,
}: {
  code: string;
  words?: string;
  /** One for each sack of a lot. */
  sacks?: boolean;
}) => (
  <a
    className="link inline-flex min-h-11 items-center"
    href={`/api/pack/tags/${encodeURIComponent(code)}/tag.pdf${sacks ? '?sacks=yes' : ''}`}
    target="_blank"
    rel="noreferrer"
  >
    {words}
  </a>
);
