/** ISO 3166 codes have two letters; the browser knows which of them are countries, and their names. */
function namesOfCountries(): string[] {
  const names = new Intl.DisplayNames('en-GB', { type: 'region', fallback: 'none' });
  const letters = Array.from({ length: 26 }, (_, i) => String.fromCharCode(65 + i));
  // Codes that name no place where anything grows: unions, reserved and private ones.
  const none = new Set(['EU', 'EZ', 'UN', 'QO', 'XA', 'XB', 'ZZ']);
  const found = letters.flatMap((a) =>
    letters.flatMap((b) => {
      const name = none.has(a + b) ? undefined : names.of(a + b);
      return name === undefined || name === 'Unknown Region' ? [] : [name];
    }),
  );
  return [...new Set(found)].sort((a, b) => a.localeCompare(b, 'en-GB'));
}

export const COUNTRIES: readonly string[] = namesOfCountries();
