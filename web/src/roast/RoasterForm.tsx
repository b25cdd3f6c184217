import type { RoasterView } from '@wunsch/core/api/roast';
import { ROASTER_KINDS, type RoasterKind } from '@wunsch/core/work/roasting-words';
import { useDraft } from '../parts/draft';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Caution, Refusal } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useHere, useShow, type Show } from '../parts/workshop';
import { ROASTER_NAMES } from './words';

interface Typed {
  name: string;
  kind: RoasterKind;
  setBy: 'hand' | 'itself';
  min: string;
  max: string;
  kw: string;
  trays: string;
  trayCm2: string;
  preheatMin: string;
  how: string;
  dMin: string;
  zC: string;
  refC: string;
  wanted: string;
  source: string;
}

const text = (value: number | null | undefined): string => (value == null ? '' : String(Math.round(value * 100) / 100));

function typedFrom(roaster: RoasterView | undefined, kw: number, show: Show): Typed {
  const { facts } = roaster ?? {};
  const heavy = (grams: number | null | undefined): string => text(grams == null ? null : show.heavyFromGrams(grams));
  return {
    name: roaster?.name ?? '',
    kind: facts?.kind ?? 'oven',
    setBy: facts?.setBy ?? 'hand',
    min: heavy(roaster?.minG),
    max: heavy(roaster?.maxG),
    kw: kw > 0 ? text(kw) : '',
    trays: text(facts?.trays),
    trayCm2: text(facts?.trayCm2),
    preheatMin: text(facts?.preheatMin ?? 15),
    how: facts?.how ?? '',
    dMin: text(facts?.kill?.dMin),
    zC: text(facts?.kill?.zC),
    refC: text(facts?.kill ? show.tempOut(facts.kill.refC) : null),
    wanted: text(facts?.kill?.wanted),
    source: facts?.kill?.source ?? '',
  };
}

const FIGURES = ['min', 'max', 'kw', 'trays', 'trayCm2', 'preheatMin', 'dMin', 'zC', 'refC', 'wanted'] as const;

/** A roaster described, or described anew; a draft until it is saved. */
export function RoasterForm({
  roaster,
  close,
  save,
}: {
  roaster?: RoasterView;
  close: () => void;
  save: (body: object, key: string) => Promise<unknown>;
}) {
  const show = useShow();
  const { view } = useHere();
  const kw = view.machines.find(({ id }) => id === roaster?.id)?.kw ?? 0;
  const draft = useDraft<Typed>(`roaster.${roaster?.id ?? 'new'}`, () => typedFrom(roaster, kw, show));
  const { busy, error, run, fail } = useSave();
  const typed = draft.value;
  const set = (part: Partial<Typed>): void => draft.set((now) => ({ ...now, ...part }));
  const bad = FIGURES.filter((name) => typed[name].trim() !== '' && readNumber(typed[name]) === null);
  const box = (name: (typeof FIGURES)[number], label: string, unit?: string) => (
    <NumberBox
      label={label}
      unit={unit}
      value={typed[name]}
      problem={bad.includes(name) ? 'is not a number' : undefined}
      onChange={(value) => set({ [name]: value })}
    />
  );
  const number = (name: (typeof FIGURES)[number]): number | null => readNumber(typed[name]);
  const enter = (): void => {
    if (typed.name.trim() === '') return fail('Give the roaster a name.');
    if (bad.length > 0) return fail('Look again at the figures that cannot be read.');
    const validated = [typed.dMin, typed.zC, typed.refC, typed.source].filter((value) => value.trim() !== '').length;
    if (validated > 0 && validated < 4)
      return fail('A validation needs D, z, the temperature D is for, and who validated it: all four, or none.');
    const [minG, maxG] = [number('min'), number('max')].map((value) =>
      value === null ? null : show.gramsFromHeavy(value),
    );
    if (minG != null && maxG != null && minG > maxG) return fail('It carries at least more than at most.');
    const refC = number('refC');
    void run(async () => {
      await save(
        {
          name: typed.name,
          station: 'roast',
          minG: minG ?? null,
          maxG: maxG ?? null,
          kw: number('kw') ?? 0,
          roaster: {
            kind: typed.kind,
            setBy: typed.setBy,
            trays: number('trays'),
            trayCm2: number('trayCm2'),
            preheatMin: number('preheatMin') ?? 15,
            how: typed.how,
            kill:
              validated === 0
                ? null
                : {
                    dMin: number('dMin'),
                    zC: number('zC'),
                    refC: refC === null ? null : show.tempIn(refC),
                    wanted: number('wanted'),
                    source: typed.source,
                  },
          },
        },
        draft.key,
      );
      draft.clear();
      close();
    });
  };
  return (
    <form
      className="max-w-3xl"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        enter();
      }}
    >
      <div className="grid gap-4 sm:grid-cols-2">
        <Box label="Name" value={typed.name} onChange={(name) => set({ name })} />
        <Box
          label="How it is set, in a word"
          value={typed.how}
          placeholder="dial on the door; the fan stops when it opens"
          onChange={(how) => set({ how })}
        />
        <Chips
          legend="Kind"
          options={ROASTER_KINDS.map((kind) => [kind, ROASTER_NAMES[kind]] as const)}
          chosen={[typed.kind]}
          choose={([kind]) => set({ kind: kind ?? 'oven' })}
        />
        <Chips
          legend="Who changes the temperature"
          options={[
            ['hand', 'somebody'],
            ['itself', 'it runs a program'],
          ]}
          chosen={[typed.setBy]}
          choose={([setBy]) => set({ setBy: setBy ?? 'hand' })}
        />
      </div>
      <div className="mt-4 grid grid-cols-2 gap-4 sm:grid-cols-3">
        {box('min', 'Roasts evenly from', show.heavy)}
        {box('max', 'Really carries', show.heavy)}
        {box('preheatMin', 'Preheats in', 'min')}
        {box('trays', 'Trays')}
        {box('trayCm2', 'Area of one', 'cm²')}
        {box('kw', 'Power', 'kW')}
      </div>
      <fieldset className="mt-5">
        <legend className="label mb-1">
          Your own validation of the heat step, if there is one. Without it no figure is shown.
        </legend>
        <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
          {box('dMin', 'D', 'min')}
          {box('refC', 'at', `°${show.tempOut(100) === 100 ? 'C' : 'F'}`)}
          {box('zC', 'z', '°C')}
          {box('wanted', 'Reductions asked for')}
        </div>
        <div className="mt-3">
          <Box
            label="Validated by whom, when, for which load"
            value={typed.source}
            onChange={(source) => set({ source })}
            placeholder="study of March, full trays, cold spot"
          />
        </div>
      </fieldset>
      <div className="mt-3">
        <Caution>
          D and z belong to an organism, a load and a roaster: take none from a book or a colleague. Your food-safety
          plan and the local authority decide.
        </Caution>
      </div>
      <Refusal error={error} />
      <div className="mt-4 flex gap-3">
        <button type="submit" className="button button-main" disabled={busy}>
          Save the roaster
        </button>
        <button
          type="button"
          className="button"
          onClick={() => {
            draft.clear();
            close();
          }}
        >
          Leave it
        </button>
      </div>
    </form>
  );
}
