/** @jest-environment jsdom */
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { Listing, type Column } from '../src/parts/listing';
import { address, field, fill, hands, pick, press, show } from './page';

/* A list: sorted, searched, narrowed, its columns chosen, in pages; all of it in the address, and out as a table. */

interface Row {
  id: string;
  name: string;
  family: string;
  grams: number | null;
}
const names = ['Alto', 'Baixo', 'Costa', 'Delta', 'Ester', 'Foz', 'Gruta', 'Horta', 'Ilha', 'Jardim', 'Lago', 'Monte'];
const ROWS: Row[] = names.map((name, i) => ({
  id: `L${i + 1}`,
  name,
  family: i % 3 === 0 ? 'Hill' : 'Coast',
  grams: i === 4 ? null : (12 - i) * 100,
}));
const COLUMNS: Column<Row>[] = [
  { id: 'code', head: 'Lot', value: ({ id }) => id },
  { id: 'name', head: 'Name', value: ({ name }) => name },
  { id: 'family', head: 'Family', value: ({ family }) => family, filter: 'all families' },
  { id: 'left', head: 'Left', unit: 'g', right: true, value: ({ grams }) => grams, show: ({ grams }) => `${grams} g` },
  { id: 'note', head: 'Note', value: ({ name }) => `=${name}`, extra: true },
];

const page = (at = '/lots', rows = ROWS, more: Partial<Parameters<typeof Listing<Row>>[0]> = {}): void =>
  void show(<Listing label="Lots on hand" rows={rows} columns={COLUMNS} rowId={({ id }) => id} {...more} />, { at });

const codes = (): string[] =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).getAllByRole('cell')[0]?.textContent ?? '');
const heads = (): string[] => screen.getAllByRole('columnheader').map(({ textContent }) => textContent);

afterEach(cleanup);

test('a heading sorts; pressed again the other way round; what is nothing stands last both times', async () => {
  page();
  expect(codes()).toEqual(ROWS.map(({ id }) => id));
  await press('Left');
  expect(codes().slice(0, 2)).toEqual(['L12', 'L11']);
  expect(codes().at(-1)).toBe('L5');
  expect(screen.getByRole('columnheader', { name: 'Left' }).getAttribute('aria-sort')).toBe('ascending');
  await press('Left');
  expect(codes()[0]).toBe('L1');
  expect(codes().at(-1)).toBe('L5');
  expect(address).toBe('/lots?sort=-left');
});

test('codes are sorted by their figures, not by their letters', () => {
  page('/lots?sort=code');
  expect(codes()).toEqual(ROWS.map(({ id }) => id));
  expect(codes().slice(8)).toEqual(['L9', 'L10', 'L11', 'L12']);
});

test('as it comes it is sorted by what it was given, and that is not written into the address', async () => {
  page('/lots', ROWS, { sort: '-left' });
  expect(codes()[0]).toBe('L1');
  await press('Left');
  expect(address).toBe('/lots?sort=left');
  await press('Left');
  expect(address).toBe('/lots');
});

test('a search holds all of its words; where none is like that, one press shows all again', async () => {
  page();
  await fill('Find in lots on hand', 'coast a');
  expect(codes()).not.toContain('L1');
  expect(codes()).toContain('L2');
  await fill('Find in lots on hand', 'coast ilha');
  expect(codes()).toEqual(['L9']);
  expect(address).toBe('/lots?find=coast+ilha');
  await fill('Find in lots on hand', 'nobody');
  expect(screen.getByText('None of these is like that.')).toBeTruthy();
  await press('Show all 12');
  expect(codes()).toHaveLength(12);
  expect(address).toBe('/lots');
});

test('one of its values narrows it, and the link says so', async () => {
  page();
  await pick('Family', 'Hill');
  expect(codes()).toEqual(['L1', 'L4', 'L7', 'L10']);
  expect(address).toBe('/lots?of-family=Hill');
  await pick('Family', 'all families');
  expect(codes()).toHaveLength(12);
});

test('a link shows what its sender saw', () => {
  page('/lots?find=h&of-family=Coast&sort=-name&columns=note,family');
  expect(codes()).toEqual(['L9', 'L8']);
  expect(heads()).toEqual(['Lot', 'Name', 'Left', 'Note']);
  expect(field('Find in lots on hand').value).toBe('h');
});

test('columns are chosen; the first is always there', async () => {
  page();
  expect(heads()).toEqual(['Lot', 'Name', 'Family', 'Left']);
  await press('Columns of lots on hand');
  expect(screen.queryByRole('checkbox', { name: 'Lot' })).toBeNull();
  await hands.click(screen.getByRole('checkbox', { name: 'Family' }));
  await hands.click(screen.getByRole('checkbox', { name: 'Note' }));
  expect(heads()).toEqual(['Lot', 'Name', 'Left', 'Note']);
  expect(address).toBe('/lots?columns=family%2Cnote');
  await hands.click(screen.getByRole('checkbox', { name: 'Family' }));
  await hands.click(screen.getByRole('checkbox', { name: 'Note' }));
  expect(address).toBe('/lots');
});

describe('pages', () => {
  const few = { pageSize: 5 };

  test('one after the other, with how many there are', async () => {
    page('/lots', ROWS, few);
    expect(codes()).toEqual(['L1', 'L2', 'L3', 'L4', 'L5']);
    expect(screen.getByText('1 to 5 of 12')).toBeTruthy();
    await press('Next page');
    await press('Next page');
    expect(codes()).toEqual(['L11', 'L12']);
    expect(screen.getByText('11 to 12 of 12')).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Next page' }).disabled).toBe(true);
    expect(address).toBe('/lots?page=3');
    await press('Page before');
    await press('Page before');
    expect(address).toBe('/lots');
  });

  test('sorting, searching and narrowing begin at the first', async () => {
    page('/lots?page=3', ROWS, few);
    await press('Name');
    expect(address).toBe('/lots?sort=name');
    cleanup();
    page('/lots?page=3', ROWS, few);
    await fill('Find in lots on hand', 'a');
    expect(address).toBe('/lots?find=a');
  });

  test.each(['99', '0', '-2', 'x', '1.5'])('page %s of a link is one that there is', (asked) => {
    page(`/lots?page=${asked}`, ROWS, few);
    expect(codes().length).toBeGreaterThan(0);
  });
});

test('a short list needs no search, an empty one says so', () => {
  page('/lots', ROWS.slice(0, 8));
  expect(screen.queryByRole('searchbox')).toBeNull();
  expect(codes()).toHaveLength(8);
  cleanup();
  page('/lots', []);
  expect(screen.getByText('Nothing yet.')).toBeTruthy();
  expect(screen.queryByRole('table')).toBeNull();
});

test('two lists of one page keep apart', async () => {
  show(
    <>
      <Listing label="Here" prefix="h-" rows={ROWS} columns={COLUMNS} rowId={({ id }) => id} />
      <Listing label="Gone" prefix="g-" rows={ROWS} columns={COLUMNS} rowId={({ id }) => id} />
    </>,
    { at: '/both' },
  );
  await fill('Find in gone', 'ilha');
  expect(address).toBe('/both?g-find=ilha');
  expect(within(screen.getByRole('region', { name: 'Here' })).getAllByRole('row')).toHaveLength(13);
  expect(within(screen.getByRole('region', { name: 'Gone' })).getAllByRole('row')).toHaveLength(2);
});

describe('as a table', () => {
  const made: Blob[] = [];
  let name = '';
  beforeEach(() => {
    made.splice(0);
    URL.createObjectURL = (blob: Blob | MediaSource) => {
      made.push(blob as Blob);
      return 'blob:1';
    };
    URL.revokeObjectURL = () => undefined;
    jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      name = this.download;
    });
  });
  afterEach(() => jest.restoreAllMocks());
  const text = async (): Promise<string[]> => {
    await press('CSV');
    await waitFor(() => expect(made).toHaveLength(1));
    const reader = new FileReader();
    const read = new Promise((done) => (reader.onload = done));
    reader.readAsText(made[0] as Blob);
    await read;
    return (reader.result as string).trim().split('\r\n');
  };

  test('it holds what is found, of all pages, in the columns and the order that are seen', async () => {
    page('/lots?of-family=Hill&sort=left&columns=family', ROWS, { pageSize: 2 });
    expect(await text()).toEqual([
      'Lot,Name,Left (g)',
      'L10,Jardim,300',
      'L7,Gruta,600',
      'L4,Delta,900',
      'L1,Alto,1200',
    ]);
    expect(name).toBe('lots-on-hand.csv');
  });

  test('nothing in it is a formula to the program that opens it; nothing stays nothing', async () => {
    page('/lots?find=ester&columns=note');
    const [, row] = await text();
    expect(row).toBe("L5,Ester,Coast,,'=Ester");
  });
});
