import { XIcon } from '@phosphor-icons/react';
import { useContext, useState } from 'react';
import { DIAL_NAMES, DIALS, type Dial } from '@wunsch/core/winnow/response';
import { sampleShare, type PickedSample } from '@wunsch/core/winnow/samples';
import type { MassUnit } from '@wunsch/core/units/mass';
import { fieldG, textOfG, type Fields, type FieldState } from '../entry/entry';
import { useApi } from '../parts/api';
import { Chips, NumberBox } from '../parts/fields';
import { readMass, readNumber, unreadable } from '../parts/number';
import { capital } from '../parts/words';
import { MassUnitHere, useShow } from '../parts/workshop';
import { Advice } from './Advice';
import {
  extrasField,
  extrasOf,
  METHOD_NAMES,
  PASS_NAMES,
  type Extras,
  type Pass,
  type TypedPass,
  type TypedSample,
} from './extras';

const METHODS = Object.entries(METHOD_NAMES) as [keyof typeof METHOD_NAMES, string][];
/** Dials that a method has. */
const DIALS_OF: Record<string, readonly Dial[]> = { hand: [], dryer: ['passes'], column: DIALS, machine: DIALS };
const SAMPLES = [
  ['shell', 'Shell in nibs', 'shell in it'],
  ['nib', 'Nib in husk', 'nib in it'],
] as const;
const UNITS: Record<Dial, string> = { gapMm: 'mm', air: 'dial', feedKgPerHour: 'kg/h', passes: 'times' };

interface Props {
  fields: Fields;
  setField: (name: string, state: FieldState) => void;
  /** Code of a tub that goes in: its family's past is what this is held against. */
  code: string | null;
  inMg: number;
}

/** Method, dials, passes, picked samples, sieve: and what they say before the session is saved. */
export function WinnowExtras({ fields, setField, code, inMg }: Props) {
  const past = useApi(code === null ? null : `/api/winnow/past/${encodeURIComponent(code)}`).data;
  const unit = useContext(MassUnitHere) ?? 'g';
  const extras = extrasOf(fields);
  const set = (part: Partial<Extras>): void => setField(...extrasField({ ...extras, ...part }));
  const setTyped = (part: Extras['typed']): void => set({ typed: { ...extras.typed, ...part } });
  const setPasses = (passes: Pass[], pass?: TypedPass): void => {
    set({ passes, typed: { ...extras.typed, ...(pass ? { pass } : {}) } });
    // The nibs of the session are what its passes add up to.
    if (passes.length > 0)
      setField('nibsG', {
        text: textOfG(
          passes.reduce((sum, { nibsG }) => sum + nibsG, 0),
          unit,
        ),
        unit,
      });
  };
  const dials = DIALS_OF[extras.method] ?? [];
  return (
    <div className="mt-6 grid gap-5">
      <Chips
        legend="How"
        options={METHODS}
        chosen={[extras.method as keyof typeof METHOD_NAMES]}
        choose={([method]) => set({ method: method ?? '' })}
      />
      {past?.offered && extras.method === '' && (
        <button
          type="button"
          className="button justify-self-start"
          onClick={() =>
            set({
              method: past.offered?.method ?? 'column',
              dials: Object.fromEntries(
                Object.entries(past.offered?.dials ?? {}).flatMap(([name, value]) =>
                  value == null ? [] : [[name, String(value)]],
                ),
              ),
            })
          }
        >
          As {past.offered.from}, the best on {past.offered.whose}:{' '}
          {DIALS.flatMap((dial) =>
            past.offered?.dials[dial] == null ? [] : [`${DIAL_NAMES[dial]} ${past.offered.dials[dial]}`],
          ).join(', ')}
        </button>
      )}
      {dials.length > 0 && (
        <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
          {dials.map((dial) => (
            <NumberBox
              key={dial}
              label={capital(DIAL_NAMES[dial])}
              unit={UNITS[dial]}
              value={extras.dials[dial] ?? ''}
              onChange={(text) => set({ dials: { ...extras.dials, [dial]: text } })}
            />
          ))}
        </div>
      )}
      <Passes
        passes={extras.passes}
        change={setPasses}
        unit={unit}
        typed={extras.typed.pass ?? { what: extras.passes.length === 0 ? 'first' : 'again', nibs: '', minutes: '' }}
        type={(pass) => setTyped({ pass })}
      />
      <div className="grid gap-5 xl:grid-cols-2">
        {SAMPLES.map(([name, label, found]) => (
          <Samples
            key={name}
            label={label}
            found={found}
            samples={extras[name]}
            typed={extras.typed[name] ?? { size: '100', found: '' }}
            type={(sample) => setTyped({ [name]: sample })}
            add={(sample, cleared) =>
              set({ [name]: [...extras[name], sample], typed: { ...extras.typed, [name]: cleared } })
            }
            takeOut={(index) => set({ [name]: extras[name].filter((_, at) => at !== index) })}
          />
        ))}
      </div>
      <details>
        <summary className="label min-h-11 cursor-pointer py-3">Cracking test on sieves</summary>
        <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
          {(
            [
              ['coarseG', 'Coarse'],
              ['goodG', 'Good'],
              ['finesG', 'Fines'],
              ['dustG', 'Dust'],
            ] as const
          ).map(([name, label]) => (
            <NumberBox
              key={name}
              label={label}
              unit="g"
              value={extras.sieve[name] ?? ''}
              onChange={(text) => set({ sieve: { ...extras.sieve, [name]: text } })}
            />
          ))}
        </div>
      </details>
      {past && <Advice extras={extras} past={past} huskG={fieldG(fields['huskG']) ?? 0} inG={inMg / 1000} />}
    </div>
  );
}

function Passes({
  passes,
  change,
  unit,
  typed,
  type,
}: {
  passes: readonly Pass[];
  /** @param next what stands in the fields after it; left out, what stood there */
  change: (passes: Pass[], next?: TypedPass) => void;
  unit: MassUnit;
  typed: TypedPass;
  type: (pass: TypedPass) => void;
}) {
  const show = useShow();
  const { what, nibs, minutes } = typed;
  const [problem, setProblem] = useState<string | undefined>();
  const add = (): void => {
    const nibsG = readMass(nibs, unit);
    setProblem(nibs.trim() === '' ? 'is missing' : nibsG !== null && nibsG < 0 ? 'is below 0' : undefined);
    if (nibsG === null || nibsG < 0 || unreadable(minutes) !== undefined) return;
    change([...passes, { what, nibsG, minutes: Math.max(0, readNumber(minutes) ?? 0) }], {
      what: 'again',
      nibs: '',
      minutes: '',
    });
  };
  return (
    <details open={passes.length > 0 || nibs !== '' || minutes !== ''}>
      <summary className="label min-h-11 cursor-pointer py-3">
        Several passes
        {passes.length > 0 &&
          `: ${passes.map((pass) => `${PASS_NAMES[pass.what].toLowerCase()} ${show.mass(pass.nibsG * 1000)}`).join(', ')}`}
      </summary>
      <div className="grid gap-3">
        <Chips
          legend="Which pass"
          options={Object.entries(PASS_NAMES) as [Pass['what'], string][]}
          chosen={[what]}
          choose={([name]) => type({ ...typed, what: name ?? 'first' })}
        />
        <div className="flex flex-wrap items-end gap-3">
          <NumberBox
            label="Nibs from it"
            unit={unit}
            value={nibs}
            onChange={(text) => type({ ...typed, nibs: text })}
            onEnter={add}
            problem={problem}
            weighed={unit}
            className="w-40"
          />
          <NumberBox
            label="Minutes"
            value={minutes}
            onChange={(text) => type({ ...typed, minutes: text })}
            onEnter={add}
            className="w-32"
          />
          <button type="button" className="button mb-1" onClick={add}>
            Add the pass
          </button>
        </div>
        <ul className="flex flex-wrap gap-2">
          {passes.map((pass, index) => (
            <li key={index}>
              <button
                type="button"
                className="chip"
                aria-label={`Take pass ${index + 1} out`}
                onClick={() => change(passes.filter((_, at) => at !== index))}
              >
                {PASS_NAMES[pass.what]} {show.mass(pass.nibsG * 1000)}
                {pass.minutes > 0 && `, ${pass.minutes} min`} <XIcon size={14} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      </div>
    </details>
  );
}

function Samples({
  label,
  found,
  samples,
  typed,
  type,
  add: put,
  takeOut,
}: {
  label: string;
  found: string;
  samples: readonly PickedSample[];
  typed: TypedSample;
  type: (sample: TypedSample) => void;
  /** @param next what stands in the fields after it */
  add: (sample: PickedSample, next: TypedSample) => void;
  takeOut: (index: number) => void;
}) {
  const show = useShow();
  const { size, found: text } = typed;
  const [problem, setProblem] = useState<string | undefined>();
  const share = sampleShare(samples);
  const add = (): void => {
    const [sampleG, foundG] = [readNumber(size), readNumber(text)];
    const wrong =
      sampleG === null || foundG === null
        ? 'is not a number'
        : sampleG <= 0
          ? 'needs a sample'
          : foundG > sampleG
            ? 'is more than the sample weighs'
            : foundG < 0
              ? 'is below 0'
              : undefined;
    setProblem(wrong);
    if (wrong !== undefined || sampleG === null || foundG === null) return;
    put({ sampleG, foundG }, { size, found: '' });
  };
  return (
    <fieldset>
      <legend className="label mb-1">{label}, picked by hand</legend>
      <div className="flex items-end gap-3">
        <NumberBox
          label="Sample"
          unit="g"
          value={size}
          onChange={(next) => type({ ...typed, size: next })}
          onEnter={add}
          className="w-24"
        />
        <NumberBox
          label={capital(found)}
          unit="g"
          value={text}
          onChange={(next) => type({ ...typed, found: next })}
          onEnter={add}
          problem={problem}
          className="min-w-28 flex-1"
        />
        <button type="button" className="button mb-1" aria-label={`Add a sample: ${label.toLowerCase()}`} onClick={add}>
          Add
        </button>
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {samples.map((sample, index) => (
          <button
            key={index}
            type="button"
            className="chip figure"
            aria-label={`Take sample ${index + 1} out`}
            onClick={() => takeOut(index)}
          >
            {show.percent(sample.foundG / sample.sampleG)} <XIcon size={14} aria-hidden />
          </button>
        ))}
        {share && (
          <span>
            <span className="figure text-xl">{show.percent(share.mean)}</span>{' '}
            <span className="text-sm text-soft">
              {share.n > 1
                ? `${show.percent(share.low)} to ${show.percent(share.high)}`
                : 'two or three samples give an interval'}
            </span>
          </span>
        )}
      </div>
    </fieldset>
  );
}
