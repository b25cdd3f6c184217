import { fitsSearch, optionsFound, type Option } from '../src/parts/choice';

const zones: Option[] = ['America/Indianapolis', 'Asia/Tbilisi', 'Europe/Lisbon', 'Lisbon', 'Pacific/Wallis'].map(
  (name) => [name, name] as const,
);

describe('finding one of a list by typing', () => {
  test('what begins with it stands first, then what has a word that does', () => {
    expect(optionsFound(zones, 'lis').map(([value]) => value)).toEqual(
      ['Lisbon', 'Europe/Lisbon', 'America/Indianapolis', 'Asia/Tbilisi', 'Pacific/Wallis'].filter((name) =>
        name.toLowerCase().includes('lis'),
      ),
    );
  });

  test('nothing typed is all of it, in its own order', () => {
    expect(optionsFound(zones, ' ')).toEqual(zones);
  });

  test('every word has to stand somewhere, in any order and case', () => {
    expect(fitsSearch('Cocoa butter, deodorised', 'BUTTER coc')).toBe(true);
    expect(fitsSearch('Cocoa butter', 'butter milk')).toBe(false);
  });

  test('letters beyond the alphabet begin words too', () => {
    const lots: Option[] = [
      ['a', 'Fiji, água fria'],
      ['b', 'Água Grande'],
    ];
    expect(optionsFound(lots, 'água').map(([value]) => value)).toEqual(['b', 'a']);
  });
});
