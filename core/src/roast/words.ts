/** What makers smell, hear and see while it roasts, roughly in the order in which it comes. Own words join them. */
export const SIGNS = [
  'vinegar',
  'wet straw',
  'bread',
  'brownie',
  'popping',
  'shell rubs off',
  'colour is there',
  'smoke',
] as const;

/** `12:05`, minutes and seconds. */
export function clock(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
