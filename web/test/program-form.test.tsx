/** @jest-environment jsdom */
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { WorkshopView } from '@wunsch/core/api/types';
import { program as schema, type Program } from '@wunsch/core/roast/records';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import { HereContext } from '../src/parts/workshop';
import { Field } from '../src/record/Field';
import { RecordFields, useReadable, useRecordForm } from '../src/record/form';
import { ProgramName } from '../src/roast/ProgramName';
import { StepsTable } from '../src/roast/ProgramParts';
import { refusing } from './refused';

/* The steps of a roast program as they are typed, and what is drawn of them meanwhile. */

const base: Program = {
  name: 'Falling',
  kind: 'bean',
  school: 'steps',
  reason: '',
  roasterId: null,
  loadG: 5000,
  preheatC: 160,
  stirEveryMin: null,
  coolMin: 60,
  steps: [
    { setC: 158, minutes: 6, until: null, note: 'cold beans' },
    { setC: 146, minutes: 9, until: { what: 'bean', beanC: 118 }, note: '' },
  ],
  suits: [],
  note: '',
};

let drawn: unknown;
function Sheet({ save }: { save: (value: Program) => Promise<unknown> }) {
  const record = useRecordForm('program.test', schema, () => base, true);
  const readable = useReadable(record);
  drawn = readable;
  return (
    <RecordFields record={record}>
      <ProgramName />
      <Field at="loadG" />
      <StepsTable count={readable.steps?.length ?? 0} split={() => undefined} remove={() => undefined} />
      <p role="status">{record.touched ? 'changed' : 'as it was'}</p>
      <button type="button" onClick={() => void record.submit(save)}>
        Save
      </button>
    </RecordFields>
  );
}

const kept: Program[] = [];
const keep = (value: Program): Promise<unknown> => Promise.resolve(kept.push(value));
function show(settings: Partial<WorkshopView['settings']> = {}, save = keep) {
  const view = { settings: { ...DEFAULT_SETTINGS, ...settings } } as WorkshopView;
  return render(
    <HereContext.Provider value={{ view, personId: 'ilse', choosePerson: () => undefined }}>
      <Sheet save={save} />
    </HereContext.Provider>,
  );
}
const step = (n: number) => within(screen.getAllByRole('listitem')[n - 1] ?? document.body);
const valueOf = (n: number, label: string): string => step(n).getByLabelText<HTMLInputElement>(label).value;

beforeEach(() => {
  localStorage.clear();
  kept.length = 0;
});
afterEach(cleanup);

test('a step that ends by the beans shows their temperature, another its minutes alone', () => {
  show();
  expect(valueOf(1, 'For (min)')).toBe('6');
  expect(step(1).queryByLabelText('Beans at (°C)')).toBeNull();
  expect(valueOf(2, 'At most (min)')).toBe('9');
  expect(valueOf(2, 'Beans at (°C)')).toBe('118');
  expect(drawn).toEqual(base);
});

test('what is refused is said while it is typed, and what is drawn goes without it', async () => {
  const user = userEvent.setup();
  show();
  await user.clear(step(1).getByLabelText('Set to (°C)'));
  await user.type(step(1).getByLabelText('Set to (°C)'), '16o');
  expect(screen.getByText('is not a number')).toBeTruthy();
  expect(drawn).toMatchObject({ steps: [{ minutes: 6, note: 'cold beans' }, { setC: 146 }] });
  expect((drawn as Program).steps[0]?.setC).toBeUndefined();
  await user.clear(step(1).getByLabelText('Set to (°C)'));
  await user.type(step(1).getByLabelText('Set to (°C)'), '900');
  expect(screen.getByText('is hotter than any roaster')).toBeTruthy();
  await user.clear(screen.getByLabelText('Name of the program'));
  expect(screen.getByText('is missing')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(kept).toEqual([]);
});

test('what was typed is saved as it is read; the rest exactly as it was', async () => {
  const user = userEvent.setup();
  show({ temperatureUnit: 'F', massSystem: 'imperial' });
  expect(screen.getByRole('status').textContent).toBe('as it was');
  expect(valueOf(1, 'Set to (°F)')).toBe('316.4');
  expect(screen.getByLabelText<HTMLInputElement>('Beans in it (lb)').value).toBe('11.023');
  await user.clear(step(2).getByLabelText('Beans at (°F)'));
  await user.type(step(2).getByLabelText('Beans at (°F)'), '250');
  expect(screen.getByRole('status').textContent).toBe('changed');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(kept).toHaveLength(1);
  const [{ steps = [], ...rest } = {}] = kept;
  const { steps: before, ...same } = base;
  expect(rest).toEqual(same);
  expect(steps[0]).toEqual(before[0]);
  expect(steps[1]?.until).toMatchObject({ what: 'bean' });
  expect((steps[1]?.until as { beanC: number }).beanC).toBeCloseTo(121.11, 2);
});

test('half-typed steps are there after a reload', async () => {
  const user = userEvent.setup();
  const first = show();
  await user.clear(step(2).getByLabelText('At most (min)'));
  await user.type(step(2).getByLabelText('At most (min)'), '9,');
  first.unmount();
  show();
  expect(valueOf(2, 'At most (min)')).toBe('9,');
  expect(screen.getByRole('status').textContent).toBe('changed');
});

test('a refusal of the server stands at the step that it is about', async () => {
  const user = userEvent.setup();
  const refuse = refusing('That program cannot be.', [
    { path: 'program.steps.1.setC', label: 'Set to', message: 'is over what this roaster does' },
    { path: 'personId', label: 'Who', message: 'is not here' },
  ]);
  show({}, refuse);
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(step(2).getByText('is over what this roaster does')).toBeTruthy();
  expect(step(1).queryByText('is over what this roaster does')).toBeNull();
  // Nothing is thrown away.
  expect(valueOf(2, 'Set to (°C)')).toBe('146');
});
