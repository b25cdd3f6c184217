import { lazy, Suspense, useState } from 'react';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { useDraft } from '../parts/draft';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';
import { useRecords } from './records';

const WorldMap = lazy(() => import('./WorldMap'));

type Texts = Record<
  | 'people'
  | 'altitude'
  | 'lat'
  | 'lon'
  | 'vessel'
  | 'fermentDays'
  | 'turns'
  | 'dryingBy'
  | 'dryingDays'
  | 'certificates'
  | 'note'
  | 'mouldyPct'
  | 'slatyPct'
  | 'defectivePct'
  | 'flatPct'
  | 'moisturePct'
  | 'rejectPct'
  | 'weightPct',
  string
>;

const text = (value: number | null): string => (value === null ? '' : String(value));

function textsOf({ papers }: BeanLotView): Texts {
  const { limits } = papers;
  return {
    people: papers.people,
    altitude: text(papers.altitudeM),
    lat: text(papers.location?.lat ?? null),
    lon: text(papers.location?.lon ?? null),
    vessel: papers.vessel,
    fermentDays: text(papers.fermentDays),
    turns: text(papers.turns),
    dryingBy: papers.dryingBy,
    dryingDays: text(papers.dryingDays),
    certificates: papers.certificates.join(', '),
    note: papers.note,
    mouldyPct: text(limits.mouldyPct),
    slatyPct: text(limits.slatyPct),
    defectivePct: text(limits.defectivePct),
    flatPct: text(limits.flatPct),
    moisturePct: text(limits.moisturePct),
    rejectPct: text(limits.rejectPct),
    weightPct: text(limits.weightPct),
  };
}

const LIMITS = [
  ['mouldyPct', 'Mouldy, by count'],
  ['slatyPct', 'Slaty, by count'],
  ['defectivePct', 'Insect, germinated, flat, by count'],
  ['flatPct', 'Flat, by weight'],
  ['rejectPct', 'All rejects, by weight'],
  ['moisturePct', 'Moisture'],
  ['weightPct', 'Short weight'],
] as const;

/** Where and how it was grown and cured, and what the contract allows. */
export function PapersForm({ lot, done }: { lot: BeanLotView; done: () => void }) {
  const draft = useDraft<Texts>(`papers.${lot.code}`, () => textsOf(lot));
  const { write, busy, error } = useRecords(lot.code);
  const [wrong, setWrong] = useState<Partial<Record<keyof Texts, string>>>({});
  const { value } = draft;
  const set =
    (name: keyof Texts) =>
    (next: string): void => {
      setWrong(({ [name]: _, ...rest }) => rest);
      draft.set((before) => ({ ...before, [name]: next }));
    };
  const number = (name: keyof Texts): number | null => readNumber(value[name]);
  const save = async (): Promise<void> => {
    const numbers: (keyof Texts)[] = [
      'altitude',
      'lat',
      'lon',
      'fermentDays',
      'turns',
      'dryingDays',
      ...LIMITS.map(([name]) => name),
    ];
    const bad = numbers.filter((name) => value[name].trim() !== '' && number(name) === null);
    if (value.lat.trim() !== '' && value.lon.trim() === '') bad.push('lon');
    setWrong(Object.fromEntries(bad.map((name) => [name, 'is not a number'])));
    if (bad.length > 0) return;
    const [lat, lon] = [number('lat'), number('lon')];
    const saved = await write(
      {
        kind: 'papers',
        people: value.people,
        altitudeM: number('altitude'),
        location: lat === null || lon === null ? null : { lat, lon },
        vessel: value.vessel,
        fermentDays: number('fermentDays'),
        turns: number('turns'),
        dryingBy: value.dryingBy,
        dryingDays: number('dryingDays'),
        certificates: value.certificates
          .split(',')
          .map((word) => word.trim())
          .filter((word) => word !== ''),
        limits: Object.fromEntries(LIMITS.map(([name]) => [name, number(name)])),
        note: value.note,
      },
      draft.key,
    );
    if (!saved) return;
    draft.clear();
    done();
  };
  const [lat, lon] = [number('lat'), number('lon')];
  return (
    <div className="grid gap-5 rounded-md bg-sheet px-4 py-4">
      <div className="grid grid-cols-2 gap-4 md:grid-cols-3">
        <Box label="People" value={value.people} onChange={set('people')} />
        <NumberBox
          label="Altitude"
          unit="m"
          value={value.altitude}
          onChange={set('altitude')}
          problem={wrong.altitude}
        />
        <Box
          label="Certificates as claimed"
          value={value.certificates}
          onChange={set('certificates')}
          hint="with commas between"
        />
      </div>
      <Chips
        legend="Fermented in a"
        options={['box', 'heap', 'basket', 'tray', 'sack'].map((name) => [name, name] as const)}
        chosen={[value.vessel]}
        choose={([name]) => set('vessel')(name ?? '')}
      />
      <div className="grid grid-cols-2 gap-4 md:grid-cols-4">
        <NumberBox
          label="Fermented"
          unit="days"
          value={value.fermentDays}
          onChange={set('fermentDays')}
          problem={wrong.fermentDays}
        />
        <NumberBox label="Turned" unit="times" value={value.turns} onChange={set('turns')} problem={wrong.turns} />
        <NumberBox
          label="Dried"
          unit="days"
          value={value.dryingDays}
          onChange={set('dryingDays')}
          problem={wrong.dryingDays}
        />
      </div>
      <Chips
        legend="Dried by"
        options={['sun', 'dryer', 'sun and dryer'].map((name) => [name, name] as const)}
        chosen={[value.dryingBy]}
        choose={([name]) => set('dryingBy')(name ?? '')}
      />
      <fieldset>
        <legend className="label mb-1">Place: press the map, or type it</legend>
        <Suspense fallback={<div className="aspect-[12/5]" />}>
          <WorldMap
            point={lat === null || lon === null ? null : { lat, lon }}
            choose={(point) => draft.set((before) => ({ ...before, lat: String(point.lat), lon: String(point.lon) }))}
          />
        </Suspense>
        <div className="mt-2 grid grid-cols-2 gap-4 md:grid-cols-4">
          <NumberBox
            label="Latitude, north is +"
            unit="°"
            value={value.lat}
            onChange={set('lat')}
            problem={wrong.lat}
          />
          <NumberBox
            label="Longitude, east is +"
            unit="°"
            value={value.lon}
            onChange={set('lon')}
            problem={wrong.lon}
          />
        </div>
      </fieldset>
      <fieldset>
        <legend className="label mb-1">
          What the contract lets pass, % (empty: nothing said; the first three are grade I of ISO 2451)
        </legend>
        <div className="grid grid-cols-2 gap-4 md:grid-cols-4">
          {LIMITS.map(([name, label]) => (
            <NumberBox key={name} label={label} value={value[name]} onChange={set(name)} problem={wrong[name]} />
          ))}
        </div>
      </fieldset>
      <Box label="Note" value={value.note} onChange={set('note')} />
      <Refusal error={error} />
      <div className="flex gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={() => void save()}>
          Save the papers
        </button>
        <button
          type="button"
          className="button"
          onClick={() => {
            draft.clear();
            done();
          }}
        >
          Leave them as they were
        </button>
      </div>
    </div>
  );
}
