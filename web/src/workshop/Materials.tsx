import { useState } from 'react';
import { Link } from 'react-router';
import type { Material } from '@wunsch/core/ledger/types';
import { newMaterial } from '@wunsch/core/workshop/schemas';
import { sendOne } from '../parts/api';
import { Section } from '../parts/pieces';
import { Field } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';
import { UsualMaterials } from '../parts/UsualMaterials';
import { useHere } from '../parts/workshop';

const COUNTS: Record<Material['cocoa'], string> = {
  none: 'ingredient',
  butter: 'cocoa butter',
  liquor: 'cocoa liquor',
  powder: 'cocoa powder',
  couverture: 'bought chocolate',
};

const factsOf = (row: Material): string =>
  [
    row.kind === 'packaging' ? 'packaging, by the piece' : row.sugar ? 'sugar' : COUNTS[row.cocoa],
    row.cocoaPct == null ? '' : `${row.cocoaPct}\u00a0% cocoa`,
    row.allergens.length > 0 ? `allergen: ${row.allergens.join(', ')}` : '',
    row.keepsMonths == null ? '' : `goods with it keep ${row.keepsMonths} months`,
    row.retired ? 'no longer bought' : '',
  ]
    .filter(Boolean)
    .join(', ');

/** Ingredients and packaging: the usual ones by a press. Ingredients are changed on a page of their own. */
export function Materials() {
  const { view } = useHere();
  const [editing, setEditing] = useState<Pick<Material, 'id' | 'name'> | null>(null);
  return (
    <Section
      title="Ingredients and packaging"
      aside={
        <Link className="link" to="/ingredients">
          what ingredients are made of
        </Link>
      }
    >
      <ul className="rows">
        {view.materials.map((material) => (
          <li key={material.id} className="flex items-center gap-3 py-1">
            <span className="min-w-0 flex-1">
              {material.name}
              <span className="block text-sm text-soft">{factsOf(material)}</span>
            </span>
            {material.kind === 'packaging' ? (
              <button type="button" className="button button-quiet" onClick={() => setEditing(material)}>
                Change
              </button>
            ) : (
              <Link className="button button-quiet" to={`/ingredients?edit=${material.id}`}>
                Change
              </Link>
            )}
          </li>
        ))}
      </ul>
      <UsualMaterials first={6} />
      {editing ? (
        <PackagingForm key={editing.id} packaging={editing} close={() => setEditing(null)} />
      ) : (
        <div className="mt-3 flex flex-wrap gap-3">
          <Link className="button" to="/ingredients?edit=new">
            Another ingredient
          </Link>
          <button type="button" className="button" onClick={() => setEditing({ id: '', name: '' })}>
            Other packaging
          </button>
        </div>
      )}
    </Section>
  );
}

function PackagingForm({ packaging, close }: { packaging: Pick<Material, 'id' | 'name'>; close: () => void }) {
  const record = useRecordForm(`packaging.${packaging.id || 'new'}`, newMaterial, () => ({
    name: packaging.name,
    kind: 'packaging' as const,
  }));
  return (
    <div className="mt-3" role="group" aria-label={packaging.name || 'Other packaging'}>
      <RecordSheet
        record={record}
        save={(body, key) => sendOne('/api/workshop/materials', packaging.id, body, key)}
        submit="Save"
        leave="Leave it"
        done={close}
      >
        <Field at="name" label="Name of the packaging" />
      </RecordSheet>
    </div>
  );
}
