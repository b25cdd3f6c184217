/** @jest-environment jsdom */
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { z } from 'zod/mini';
import type { WorkshopView } from '@wunsch/core/api/types';
import { field } from '@wunsch/core/fields/registry';
import { massG, money, name, tempC } from '@wunsch/core/fields/fields';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import { HereContext } from '../src/parts/workshop';
import { Field, Rows } from '../src/record/Field';
import { RecordSheet, useRecordForm } from '../src/record/form';
import { refusing } from './refused';

const sheet = z
  .object({
    name: field(name, { label: 'Name' }),
    minG: field(z._default(z.nullable(massG), null), { label: 'Least', weighed: 'heavy' }),
    maxG: field(z._default(z.nullable(massG), null), { label: 'Most', weighed: 'heavy' }),
    setC: field(z._default(z.nullable(tempC), null), { label: 'Set to' }),
    kind: field(z._default(z.enum(['oven', 'drum']), 'oven'), {
      label: 'Kind',
      words: { oven: 'Oven', drum: 'Drum' },
    }),
    lid: field(z._default(z.boolean(), false), { label: 'It has a lid' }),
    prices: z._default(
      z.array(z.object({ channel: field(name, { label: 'Channel' }), price: field(money, { label: 'Price' }) })),
      [],
    ),
  })
  .check(
    z.refine((s) => s.minG === null || s.maxG === null || s.minG <= s.maxG, {
      message: 'is more than the most',
      path: ['minG'],
    }),
  );
type Sheet = z.output<typeof sheet>;

function Form({
  save,
  start = {},
  done,
}: {
  save: (value: Sheet, key: string) => Promise<unknown>;
  start?: Partial<Sheet>;
  done?: () => void;
}) {
  const record = useRecordForm('test', sheet, () => start);
  return (
    <RecordSheet record={record} save={save} submit="Save" leave="Leave it" {...(done ? { done } : {})}>
      <Field at="name" />
      <Field at="minG" />
      <Field at="maxG" />
      <Field at="setC" />
      <Field at="kind" />
      <Field at="lid" />
      <Rows at="prices" columns="" add="Another channel">
        {(path) => (
          <>
            <Field at={`${path}.channel`} />
            <Field at={`${path}.price`} />
          </>
        )}
      </Rows>
    </RecordSheet>
  );
}

const here = (settings: Partial<WorkshopView['settings']> = {}) => ({
  view: { settings: { ...DEFAULT_SETTINGS, ...settings } } as WorkshopView,
  personId: 'ilse',
  choosePerson: () => undefined,
});

function show(props: Parameters<typeof Form>[0], settings: Partial<WorkshopView['settings']> = {}) {
  return render(
    <HereContext.Provider value={here(settings)}>
      <Form {...props} />
    </HereContext.Provider>,
  );
}

const saved = () => {
  const calls: [Sheet, string][] = [];
  return {
    calls,
    save: (value: Sheet, key: string): Promise<unknown> => {
      calls.push([value, key]);
      return Promise.resolve();
    },
  };
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('what is typed is saved as its schema reads it, once, and the form begins again', async () => {
  const user = userEvent.setup();
  const { calls, save } = saved();
  let ended = 0;
  show({ save, done: () => (ended += 1) });
  await user.type(screen.getByLabelText('Name'), ' Test drum ');
  await user.type(screen.getByLabelText('Least (kg)'), '0.15');
  await user.type(screen.getByLabelText('Set to (°C)'), '120');
  await user.click(screen.getByRole('button', { name: 'Drum' }));
  await user.click(screen.getByLabelText('It has a lid'));
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(calls.map(([value]) => value)).toEqual([
    { name: 'Test drum', minG: 150, maxG: null, setC: 120, kind: 'drum', lid: true, prices: [] },
  ]);
  expect(ended).toBe(1);
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('');
});

test('what is refused stands at its field, the first one has the focus, nothing is sent', async () => {
  const user = userEvent.setup();
  const { calls, save } = saved();
  show({ save });
  await user.type(screen.getByLabelText('Least (kg)'), '9x');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(calls).toEqual([]);
  const nameBox = screen.getByLabelText('Name');
  expect(document.activeElement).toBe(nameBox);
  expect(nameBox.getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByText('is missing')).toBeTruthy();
  expect(screen.getByText('is not a number')).toBeTruthy();
  expect(screen.getByRole('alert').textContent).toContain('Look again at what is marked.');
  await user.clear(screen.getByLabelText('Least (kg)'));
  await user.type(screen.getByLabelText('Least (kg)'), '9');
  await user.type(screen.getByLabelText('Most (kg)'), '2');
  await user.type(nameBox, 'Oven');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(screen.getByText('is more than the most')).toBeTruthy();
  expect(calls).toEqual([]);
});

test('a half-typed form is there after a reload, under the same key; left, it is gone', async () => {
  const user = userEvent.setup();
  const failing = (_value: Sheet, key: string): Promise<unknown> => {
    keys.push(key);
    return Promise.reject(new Error('The server does not answer.'));
  };
  const keys: string[] = [];
  const first = show({ save: failing });
  await user.type(screen.getByLabelText('Name'), 'Oven');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(screen.getByRole('alert').textContent).toContain('The server does not answer.');
  first.unmount();
  show({ save: failing });
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Oven');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(keys).toHaveLength(2);
  expect(keys[1]).toBe(keys[0]);
  await user.click(screen.getByRole('button', { name: 'Leave it' }));
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('');
  expect(localStorage.length).toBe(0);
});

test("the server's word about a field stands at that field", async () => {
  const user = userEvent.setup();
  const refuse = refusing('There is a machine of that name.', [
    { path: 'record.name', label: 'Name', message: 'is taken' },
  ]);
  show({ save: refuse });
  await user.type(screen.getByLabelText('Name'), 'Oven');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(screen.getByText('is taken')).toBeTruthy();
  expect(screen.getByRole('alert').textContent).toContain('There is a machine of that name.');
});

test('pounds and Fahrenheit are typed where the workshop weighs so, and what nobody touched stays exact', async () => {
  const user = userEvent.setup();
  const { calls, save } = saved();
  show({ save, start: { name: 'Oven', minG: 1000, setC: 120 } }, { massSystem: 'imperial', temperatureUnit: 'F' });
  expect(screen.getByLabelText<HTMLInputElement>('Least (lb)').value).toBe('2.205');
  expect(screen.getByLabelText<HTMLInputElement>('Set to (°F)').value).toBe('248');
  await user.type(screen.getByLabelText('Most (lb)'), '10');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(calls[0]?.[0]).toMatchObject({ minG: 1000, setC: 120 });
  expect(calls[0]?.[0].maxG).toBeCloseTo(4535.924, 2);
});

test('a draft typed in pounds is there in kilograms once the workshop weighs so; while it is open its units stay', async () => {
  const user = userEvent.setup();
  const { calls, save } = saved();
  const first = show({ save, start: { name: 'Oven' } }, { massSystem: 'imperial' });
  await user.type(screen.getByLabelText('Most (lb)'), '10');
  first.rerender(
    <HereContext.Provider value={here()}>
      <Form save={save} />
    </HereContext.Provider>,
  );
  expect(screen.getByLabelText<HTMLInputElement>('Most (lb)').value).toBe('10');
  first.unmount();
  show({ save, start: { name: 'Oven' } });
  expect(screen.getByLabelText<HTMLInputElement>('Most (kg)').value).toBe('4.536');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(calls[0]?.[0].maxG).toBe(4536);
});

test('rows are added, filled and left out', async () => {
  const user = userEvent.setup();
  const { calls, save } = saved();
  show({ save, start: { name: 'Bar', prices: [{ channel: 'market', price: 7.5 }] } });
  await user.click(screen.getByRole('button', { name: 'Another channel' }));
  const [, second] = screen.getAllByLabelText('Channel');
  await user.type(second as HTMLElement, 'shops');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(calls).toEqual([]);
  expect(screen.getByText('is missing')).toBeTruthy();
  await user.type(screen.getAllByLabelText('Price')[1] as HTMLElement, '5');
  await user.click(screen.getAllByRole('button', { name: 'Leave out' })[0] as HTMLElement);
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(calls[0]?.[0].prices).toEqual([{ channel: 'shops', price: 5 }]);
});
