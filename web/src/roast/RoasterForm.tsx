import type { RoasterView } from '@wunsch/core/api/roast';
import { ROASTER_KINDS } from '@wunsch/core/work/roasting-words';
import { machineFacts } from '@wunsch/core/workshop/schemas';
import { Caution } from '../parts/pieces';
import { useHere } from '../parts/workshop';
import { Field } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';
import { ROASTER_NAMES } from './words';

const KINDS = ROASTER_KINDS.map((kind) => [kind, ROASTER_NAMES[kind]] as const);

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
  const { machines } = useHere().view;
  const record = useRecordForm(`roaster.${roaster?.id ?? 'new'}`, machineFacts, () => ({
    ...machines.find(({ id }) => id === roaster?.id),
    station: 'roast' as const,
    roaster: roaster?.facts ?? { kind: 'oven' as const, setBy: 'hand' as const, preheatMin: 15 },
  }));
  return (
    <RecordSheet
      record={record}
      save={save}
      submit="Save the roaster"
      leave="Leave it"
      done={close}
      className="grid max-w-3xl gap-4"
    >
      <div className="grid gap-4 sm:grid-cols-2">
        <Field at="name" label="Name" />
        <Field at="roaster.how" />
        <Field at="roaster.kind" choices={KINDS} />
        <Field at="roaster.setBy" />
      </div>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-3">
        <Field at="minG" label="Roasts evenly from" />
        <Field at="maxG" label="Really carries" />
        <Field at="roaster.preheatMin" />
        <Field at="roaster.trays" />
        <Field at="roaster.trayCm2" />
        <Field at="kw" />
        {roaster && <Field at="retired" />}
      </div>
      <fieldset>
        <legend className="label mb-1">
          Your own validation of the heat step, if there is one. Without it no figure is shown.
        </legend>
        <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
          <Field at="roaster.kill.dMin" />
          <Field at="roaster.kill.refC" />
          <Field at="roaster.kill.zC" />
          <Field at="roaster.kill.wanted" />
        </div>
        <Field className="mt-3" at="roaster.kill.source" />
      </fieldset>
      <Caution>
        D and z belong to an organism, a load and a roaster: take none from a book or a colleague. Your food-safety plan
        and the local authority decide.
      </Caution>
    </RecordSheet>
  );
}
