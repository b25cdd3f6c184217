import type { Settings } from '@wunsch/core/workshop/schemas';

/** Currencies of countries that make or buy chocolate (ISO 3166 to ISO 4217); elsewhere the euro is proposed. */
const CURRENCIES: Readonly<Record<string, string>> = {
  AU: 'AUD', BO: 'BOB', BR: 'BRL', CA: 'CAD', CH: 'CHF', CL: 'CLP', CN: 'CNY', CO: 'COP', CR: 'CRC', CZ: 'CZK',
  DK: 'DKK', DO: 'DOP', EC: 'USD', FJ: 'FJD', GB: 'GBP', GH: 'GHS', GT: 'GTQ', HK: 'HKD', HN: 'HNL', HU: 'HUF',
  ID: 'IDR', IL: 'ILS', IN: 'INR', IS: 'ISK', JM: 'JMD', JP: 'JPY', KE: 'KES', KR: 'KRW', LI: 'CHF', MG: 'MGA',
  MX: 'MXN', MY: 'MYR', NG: 'NGN', NI: 'NIO', NO: 'NOK', NZ: 'NZD', PE: 'PEN', PG: 'PGK', PH: 'PHP', PL: 'PLN',
  RO: 'RON', RS: 'RSD', SB: 'SBD', SE: 'SEK', SG: 'SGD', SL: 'SLE', ST: 'STN', TH: 'THB', TR: 'TRY', TT: 'TTD',
  TW: 'TWD', TZ: 'TZS', UA: 'UAH', UG: 'UGX', US: 'USD', UY: 'UYU', VN: 'VND', VU: 'VUV', WS: 'WST', ZA: 'ZAR',
}; // prettier-ignore

/** What a browser says of where it is: a proposal that the maker can change. */
export function settingsHere(
  language: string,
  timeZone: string | undefined,
): Pick<Settings, 'timeZone' | 'currency' | 'massSystem' | 'temperatureUnit' | 'decimalMark'> {
  const locale = new Intl.Locale(language);
  // The zone says better where one is than the language, where the language brings no region of its own.
  const region = locale.region ?? locale.maximize().region ?? '';
  const mark = new Intl.NumberFormat(language).formatToParts(1.5).find(({ type }) => type === 'decimal')?.value;
  return {
    timeZone: timeZone ?? 'UTC',
    currency: CURRENCIES[region] ?? 'EUR',
    massSystem: ['US', 'LR', 'MM'].includes(region) ? 'imperial' : 'metric',
    temperatureUnit: region === 'US' ? 'F' : 'C',
    decimalMark: mark === ',' ? ',' : '.',
  };
}
