import { useNavigate, useSearchParams } from 'react-router';
import { send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Loading, Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { useRoastersInUse } from './compute';
import { RoastingHead } from './RoastingNav';
import { SelectBox } from '../parts/choice';

interface Plan {
  name: string;
  lotId: string;
  roasterId: string;
  load: string;
  /** Warmths and lengths as typed: `114, 120, 126`. */
  warmths: string;
  lengths: string;
  /** Roasts of the grid that are left out, as `114x18`. */
  left: string[];
  note: string;
}

const figures = (text: string): number[] | null => {
  const values = text
    .split(/[;\s]+|,(?=\s)|,(?!\d)/)
    .filter((part) => part.trim() !== '')
    .map(readNumber);
  return values.length === 0 || values.some((value) => value === null) ? null : [...new Set(values as number[])];
};

const MOST = 16;

/** A trial planned: how warm against how long, as a grid from which roasts can be left out. */
export function TrialPlan() {
  const show = useShow();
  const navigate = useNavigate();
  const [query] = useSearchParams();
  const { personId } = useHere();
  const roasters = useRoastersInUse();
  const lots = useApi('/api/trace/lots').data?.lots;
  const draft = useDraft<Plan>('trial.new', () => ({
    name: '',
    lotId: '',
    roasterId: '',
    load: String(Math.round(show.heavyFromGrams(800) * 100) / 100),
    warmths: [114, 120, 126].map((c) => Math.round(show.fromCelsius(c))).join('; '),
    lengths: '18; 28',
    left: [],
    note: '',
  }));
  const { busy, error, run, fail } = useSave();
  if (!lots || !roasters) return <Loading />;
  const plan = draft.value;
  const set = (part: Partial<Plan>): void => draft.set((now) => ({ ...now, ...part }));
  const standing = lots.filter(({ massMg }) => massMg > 0);
  const [warmths, lengths] = [figures(plan.warmths), figures(plan.lengths)];
  const cells = (warmths ?? []).flatMap((warmth) => (lengths ?? []).map((minutes) => ({ warmth, minutes })));
  const keyOf = ({ warmth, minutes }: (typeof cells)[number]): string => `${warmth}x${minutes}`;
  const kept = cells.filter((cell) => !plan.left.includes(keyOf(cell)));
  const lot = standing.find(({ id, code }) => (plan.lotId === '' ? code === query.get('lot') : id === plan.lotId));
  const loadG = readNumber(plan.load);
  const needs = loadG === null ? null : show.gramsFromHeavy(loadG) * kept.length;
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    if (!lot) return fail('Choose the lot that is to be tried.');
    if (loadG === null || loadG <= 0) return fail('Say how much goes into one load.');
    if (kept.length < 2) return fail('Two roasts at least: one alone has nothing to be held against.');
    if (kept.length > MOST) return fail(`${kept.length} roasts are more than a panel can taste: ${MOST} at most.`);
    void run(async () => {
      const { data } = await send(
        'POST',
        '/api/roast/trials',
        {
          personId,
          trial: {
            name: plan.name.trim() === '' ? `${lot.name}, trial` : plan.name,
            lotId: lot.id,
            roasterId: plan.roasterId === '' ? null : plan.roasterId,
            loadG: show.gramsFromHeavy(loadG),
            cells: kept.map(({ warmth, minutes }) => ({ peakC: show.toCelsius(warmth), minutes })),
            note: plan.note,
          },
        },
        draft.key,
      );
      draft.clear();
      void navigate(`/roasting/trial/${data.id}`);
    });
  };
  return (
    <>
      <RoastingHead title="Plan a trial">
        A small plan of roasts on one lot. How warm the beans get and how long it takes are what a palate tells apart
        first; change one thing at a time.
      </RoastingHead>
      <div className="grid gap-x-12 gap-y-6 lg:grid-cols-2">
        <div className="grid content-start gap-4">
          <SelectBox
            label="Lot"
            value={lot?.id ?? ''}
            options={[
              ['', 'choose'],
              ...standing.map(({ id, code, name, massMg }) => [id, `${code} ${name}, ${show.mass(massMg)}`] as const),
            ]}
            onChange={(lotId) => set({ lotId })}
          />
          <Box
            label="Name"
            value={plan.name}
            placeholder={lot ? `${lot.name}, trial` : 'new crop, first roasts'}
            onChange={(name) => set({ name })}
          />
          <Chips
            legend="Roaster"
            options={[['', 'any'] as const, ...roasters.map(({ id, name }) => [id, name] as const)]}
            chosen={[plan.roasterId]}
            choose={([roasterId]) => set({ roasterId: roasterId ?? '' })}
          />
          <div className="grid grid-cols-2 gap-4">
            <NumberBox
              label="In one load"
              unit={show.heavy}
              value={plan.load}
              problem={loadG === null ? 'is not a number' : undefined}
              onChange={(load) => set({ load })}
            />
          </div>
          <Box label="Note" value={plan.note} onChange={(note) => set({ note })} />
        </div>
        <div>
          <div className="grid grid-cols-2 gap-4">
            <Box
              label={`How warm the beans get (°${show.fromCelsius(100) === 100 ? 'C' : 'F'})`}
              value={plan.warmths}
              problem={warmths === null ? 'needs numbers, with ; between' : undefined}
              onChange={(text) => set({ warmths: text })}
            />
            <Box
              label="How long it takes (min)"
              value={plan.lengths}
              problem={lengths === null ? 'needs numbers, with ; between' : undefined}
              onChange={(text) => set({ lengths: text })}
            />
          </div>
          <p className="label mt-4 mb-1">The roasts; press one to leave it out</p>
          <div
            className="grid gap-2"
            style={{ gridTemplateColumns: `repeat(${Math.max(1, lengths?.length ?? 1)}, minmax(0, 1fr))` }}
          >
            {cells.map((cell) => {
              const key = keyOf(cell);
              const on = !plan.left.includes(key);
              return (
                <button
                  key={key}
                  type="button"
                  className="chip justify-center rounded-lg!"
                  aria-pressed={on}
                  onClick={() => set({ left: on ? [...plan.left, key] : plan.left.filter((row) => row !== key) })}
                >
                  {cell.warmth}°, {cell.minutes} min
                </button>
              );
            })}
          </div>
          <p className="mt-3 text-soft">
            {kept.length} loads{needs !== null && `, ${show.mass(needs * 1000)} of beans`}
            {lot && needs !== null && needs * 1000 > lot.massMg && (
              <strong className="text-crimson">: more than {lot.code} has</strong>
            )}
            .
          </p>
          <Refusal error={error} />
          <button type="button" className="button button-main mt-4 text-lg" disabled={busy} onClick={save}>
            Keep the plan
          </button>
        </div>
      </div>
    </>
  );
}
