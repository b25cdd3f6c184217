import { lazy, Suspense } from 'react';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { papers } from '@wunsch/core/beans/records';
import { readNumber, typedNumber } from '../parts/number';
import { Field, useTyped } from '../record/Field';
import { RecordSheet, useRecordForm, type RecordForm } from '../record/form';
import { useRecords } from './records';

const WorldMap = lazy(() => import('./WorldMap'));

const LIMITS = ['mouldyPct', 'slatyPct', 'defectivePct', 'flatPct', 'rejectPct', 'moisturePct', 'weightPct'] as const;

/** Where and how it was grown and cured, and what the contract allows. */
export function PapersForm({ lot, done }: { lot: BeanLotView; done: () => void }) {
  const record = useRecordForm(`papers.${lot.code}`, papers, () => lot.papers);
  const { enter } = useRecords(lot.code);
  return (
    <RecordSheet
      record={record}
      save={enter}
      submit="Save the papers"
      leave="Leave them as they were"
      done={done}
      className="grid gap-5 rounded-md bg-sheet px-4 py-4"
    >
      <div className="grid grid-cols-2 gap-4 md:grid-cols-3">
        <Field at="people" />
        <Field at="altitudeM" />
        <Field at="certificates" />
      </div>
      <Field at="vessel" />
      <div className="grid grid-cols-2 gap-4 md:grid-cols-4">
        <Field at="fermentDays" />
        <Field at="turns" />
        <Field at="dryingDays" />
      </div>
      <Field at="dryingBy" />
      <fieldset>
        <legend className="label mb-1">Place: press the map, or type it</legend>
        <Place form={record.form} />
        <div className="mt-2 grid grid-cols-2 gap-4 md:grid-cols-4">
          <Field at="location.lat" />
          <Field at="location.lon" />
        </div>
      </fieldset>
      <fieldset>
        <legend className="label mb-1">
          What the contract lets pass, % (empty: nothing said; the first three are grade I of ISO 2451)
        </legend>
        <div className="grid grid-cols-2 gap-4 md:grid-cols-4">
          {LIMITS.map((name) => (
            <Field key={name} at={`limits.${name}`} />
          ))}
        </div>
      </fieldset>
      <Field at="note" />
    </RecordSheet>
  );
}

/** The map, which follows what is typed and writes what is pressed. */
function Place({ form }: Pick<RecordForm, 'form'>) {
  const [lat, lon] = [readNumber(useTyped('location.lat')), readNumber(useTyped('location.lon'))];
  return (
    <Suspense fallback={<div className="aspect-[12/5]" />}>
      <WorldMap
        point={lat === null || lon === null ? null : { lat, lon }}
        choose={(point) => {
          form.setValue('location.lat', typedNumber(point.lat), { shouldDirty: true });
          form.setValue('location.lon', typedNumber(point.lon), { shouldDirty: true });
        }}
      />
    </Suspense>
  );
}
