/** A number as people type it: comma or point; null when it is empty or not a number. */
export function readNumber(text: string): number | null {
  const clean = text.trim().replace(/\s/g, '').replace(',', '.');
  if (clean === '' || !/^-?\d*\.?\d+$|^-?\d+\.$/.test(clean)) return null;
  const value = Number(clean);
  return Number.isFinite(value) ? value : null;
}
