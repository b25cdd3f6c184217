/** A field as RFC 4180 wants it; a leading `=`, `+`, `-`, `@` is kept from being run by a spreadsheet. */
export function csvField(value: string | number | null): string {
  if (value === null) return '';
  if (typeof value === 'number') return String(value);
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** Rows as CSV (RFC 4180). */
export const csv = (rows: readonly (readonly (string | number | null)[])[]): string =>
  rows.map((row) => row.map(csvField).join(',')).join('\r\n') + '\r\n';
