import { useNavigate } from 'react-router';
import {
  DESIGN_WORDS,
  DESIGNS,
  FACTOR_KEYS,
  FACTORS,
  isKind,
  type Factor,
  type Level,
} from '@wunsch/core/trials/records';
import { ask, send, useApi } from '../parts/api';
import { useDraft } from '../parts/draft';
import { EditableRows } from '../parts/EditableRows';
import { SelectBox } from '../parts/choice';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber, someSeed } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { TasteHead } from '../taste/TasteNav';

type Design = (typeof DESIGNS)[number];
interface Plan {
  name: string;
  question: string;
  design: Design;
  count: string;
  /** Levels as typed: figures with commas or spaces between; for beans the ids of lots. */
  factors: { factor: Factor; levels: string; kinds: string[] }[];
  arms: Level[][] | null;
}
const EMPTY: Plan = {
  name: '',
  question: '',
  design: 'ladder',
  count: '',
  factors: [{ factor: 'grindH', levels: '', kinds: [] }],
  arms: null,
};

/** Plans a trial: what varies, in which steps, what is made and in which order. */
export function TrialPlanPage() {
  const { personId } = useHere();
  const show = useShow();
  const navigate = useNavigate();
  const lots = useApi('/api/trace/lots').data?.lots ?? [];
  const usual = useApi('/api/trials/usual').data?.usual ?? {};
  const draft = useDraft<Plan>('trial.new', () => EMPTY);
  const { busy, error, run, fail } = useSave();
  const { name, question, design, count, factors, arms } = draft.value;
  const set = (next: Partial<Plan>): void => draft.set((now) => ({ ...now, arms: null, ...next }));
  const setFactor = (index: number, next: Partial<Plan['factors'][number]>): void =>
    set({ factors: factors.map((row, i) => (i === index ? { ...row, ...next } : row)) });
  const unitOf = (factor: Factor): string => (FACTORS[factor].unit === '°C' ? show.tempUnit : FACTORS[factor].unit);

  const usualWords = (factor: Factor): string => {
    const here = usual[factor];
    if (!here) return '';
    const figure = (value: number): string =>
      (FACTORS[factor].unit === '°C' ? show.fromCelsius(value) : value).toFixed(1).replace(/\.0$/, '');
    return `; the last batches had ${figure(here.low)} to ${figure(here.high)}`;
  };

  /** Factors as they are sent; a word where they cannot be read. */
  const read = (): { factor: Factor; levels: Level[] }[] | string => {
    const rows: { factor: Factor; levels: Level[] }[] = [];
    for (const { factor, levels, kinds } of factors) {
      if (isKind(factor)) {
        rows.push({ factor, levels: kinds });
        continue;
      }
      const parts = levels.split(/[;\s]+/).filter((part) => part !== '');
      const figures = parts.map((part) => readNumber(part));
      if (figures.length === 0 || figures.some((value) => value === null))
        return `${FACTORS[factor].name}: figures with a space between, as 24 36 48.`;
      rows.push({
        factor,
        levels: figures.map((value) => (FACTORS[factor].unit === '°C' ? show.toCelsius(value ?? 0) : (value ?? 0))),
      });
    }
    return rows;
  };
  const lay = (): void => {
    const rows = read();
    if (typeof rows === 'string') return fail(rows);
    const wanted = count.trim() === '' ? null : readNumber(count);
    if (wanted === null && count.trim() !== '') return fail('Batches: not a number.');
    void run(async () => {
      const laid = await ask('/api/calc/trials/design', {
        factors: rows,
        design,
        count: wanted,
        seed: someSeed(),
      });
      draft.set((now) => ({ ...now, arms: laid.arms }));
    });
  };
  const keep = (): void => {
    const rows = read();
    if (personId === null) return fail(NOBODY);
    if (typeof rows === 'string') return fail(rows);
    void run(async () => {
      const trial = { name, question, design, factors: rows, arms };
      const { data } = await send('POST', '/api/trials', { personId, trial }, draft.key);
      draft.clear();
      void navigate(`/trial/${data.id}`);
    });
  };
  const levelWords = (factor: Factor, level: Level): string => {
    if (isKind(factor)) return lots.find((lot) => lot.id === level)?.name ?? String(level);
    return FACTORS[factor].unit === '°C' ? show.temp(Number(level)) : `${level} ${FACTORS[factor].unit}`;
  };
  return (
    <div className="max-w-4xl">
      <TasteHead title="A trial">
        What varies, in which steps; all the rest is kept as it always is. Roasts of one lot have a plan of their own
        under Roasting.
      </TasteHead>
      <div className="grid gap-4 md:grid-cols-2">
        <Box label="Name" value={name} onChange={(text) => set({ name: text })} placeholder="How long on the stones" />
        <Box label="What it is to say" value={question} onChange={(text) => set({ question: text })} />
      </div>
      <Section title="What varies" id="varies">
        <EditableRows
          rows={factors}
          columns="md:grid-cols-[16rem_minmax(0,1fr)_auto]"
          fewest={1}
          add={() => set({ factors: [...factors, { factor: 'restDays', levels: '', kinds: [] }] })}
          addWords="Vary one more thing"
          leaveOut={(index) => set({ factors: factors.filter((_, i) => i !== index) })}
          fields={(row, index) => (
            <>
              <SelectBox
                label="This"
                value={row.factor}
                options={FACTOR_KEYS.map((key) => [key, FACTORS[key].name] as const)}
                onChange={(value) => setFactor(index, { factor: value, levels: '', kinds: [] })}
              />
              {isKind(row.factor) ? (
                <Chips
                  legend="These lots"
                  several
                  options={lots
                    .filter(({ massMg }) => massMg > 0)
                    .slice(0, 12)
                    .map((lot) => [lot.id, `${lot.code} ${lot.name}`] as const)}
                  chosen={row.kinds}
                  choose={(kinds) => setFactor(index, { kinds })}
                />
              ) : (
                <Box
                  label={`In these steps${usualWords(row.factor)}`}
                  unit={unitOf(row.factor)}
                  value={row.levels}
                  placeholder="24 36 48"
                  onChange={(levels) => setFactor(index, { levels })}
                />
              )}
            </>
          )}
        />
      </Section>
      <Section title="How it is laid out" id="laid">
        <Chips
          legend="Plan"
          options={DESIGNS.map((row) => [row, DESIGN_WORDS[row]] as const)}
          chosen={[design]}
          choose={([next]) => set({ design: next ?? 'ladder' })}
        />
        {design === 'small' && (
          <NumberBox
            className="mt-3 w-56"
            label="Batches (empty: as few as will tell)"
            value={count}
            onChange={(text) => set({ count: text })}
          />
        )}
        {design === 'ladder' && factors.length > 1 && (
          <p className="mt-2 text-soft">A ladder varies the first thing; the others stay at their first step.</p>
        )}
        <button type="button" className="button mt-3" disabled={busy} onClick={lay}>
          Lay it out
        </button>
        {arms && (
          <ol className="rows mt-3 max-w-xl">
            {arms.map((arm, i) => (
              <li key={i} className="flex gap-4 py-1.5">
                <span className="figure w-6 text-soft">{i + 1}</span>
                {arm.map((level, f) => (
                  <span key={f} className="figure text-lg">
                    {levelWords(factors[f]?.factor ?? 'grindH', level)}
                  </span>
                ))}
              </li>
            ))}
          </ol>
        )}
        {arms && design !== 'ladder' && (
          <p className="text-sm text-soft">
            Made in this order, which chance gave: what drifts meanwhile does not look like what was varied.
          </p>
        )}
      </Section>
      <button type="button" className="button button-main mt-4" disabled={busy || arms === null} onClick={keep}>
        Keep the plan
      </button>
      <Refusal error={error} />
    </div>
  );
}
