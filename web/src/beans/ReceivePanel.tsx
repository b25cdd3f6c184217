import { useState } from 'react';
import { Link } from 'react-router';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { send, useApi } from '../parts/api';
import { Chips } from '../parts/fields';
import { Loading } from '../parts/pieces';
import { useHere } from '../parts/workshop';
import { heavyUnit } from '@wunsch/core/units/price';
import type { Fields } from '../entry/entry';
import { priceText } from '../parts/number';
import { RouteChoice } from '../parts/RouteChoice';
import type { EnteredStep } from '@wunsch/core/api/types';
import { StepForm } from '../entry/StepForm';

type What = 'beans' | 'sample' | 'nibs' | 'wet';
const WHAT: readonly (readonly [What, string])[] = [
  ['beans', 'Beans'],
  ['sample', 'A sample'],
  ['nibs', 'Nibs'],
  ['wet', 'Own pods, wet beans'],
];

type Roasted = 'yes' | 'no' | '';
const ROASTED: readonly (readonly [Roasted, string])[] = [
  ['yes', 'Roasted'],
  ['no', 'Raw'],
  ['', 'Nobody said'],
];
const ROASTED_MEANS: Record<Roasted, boolean | null> = { yes: true, no: false, '': null };

/** The door that lots come in by; with a sample's code, the lot that was bought on it. */
export function ReceivePanel({ sampleCode }: { sampleCode: string | null }) {
  const sample = useApi(sampleCode === null ? null : `/api/beans/lots/${encodeURIComponent(sampleCode)}`);
  if (sampleCode !== null && !sample.data) return <Loading error={sample.error} />;
  return <Receive key={sampleCode ?? 'new'} sample={sample.data ?? null} />;
}

function Receive({ sample }: { sample: BeanLotView | null }) {
  const { view: workshop, personId } = useHere();
  const { currency, massSystem } = workshop.settings;
  /** Nibs do not begin at the raw beans: each way of coming has the route that fits it, until another is chosen. */
  const routeOf = ({ routeId, what }: Record<string, string | undefined>): string =>
    routeId ??
    sample?.route.id ??
    workshop.routes.find(({ id }) => id === (what === 'nibs' ? 'from-nibs' : 'whole-bean'))?.id ??
    workshop.routes[0]?.id ??
    '';
  const [saved, setSaved] = useState<{ code: string; wet: boolean } | null>(null);
  const heavy = { text: '', unit: heavyUnit(massSystem) };
  const initial: Fields = {
    currency: { text: sample?.facts.currency ?? currency },
    netG: heavy,
    invoiceNetG: heavy,
    ...(sample
      ? {
          name: { text: sample.name.replace(/, sample$/, '') },
          producer: { text: sample.facts.producer },
          country: { text: sample.facts.country },
          region: { text: sample.facts.region },
          variety: { text: sample.facts.variety },
          harvest: { text: sample.facts.harvest },
          pricePerKg: {
            text:
              sample.facts.pricePerKg === undefined ? '' : priceText(sample.facts.pricePerKg, heavyUnit(massSystem)),
          },
        }
      : {}),
  };
  const onSaved = ({ step }: EnteredStep): void => {
    const made = step.lines.find((line) => line.kind === 'lot')?.code ?? null;
    setSaved(made === null ? null : { code: made, wet: (step.command as { form?: string }).form === 'wet' });
    // What is known of the sample's growing and curing holds for the lot until somebody writes otherwise.
    if (made !== null && sample) {
      void send('POST', `/api/beans/lots/${made}/records`, { personId, record: sample.papers });
    }
  };
  return (
    <div>
      {sample && (
        <p className="mb-4 text-lg">
          Bought on sample{' '}
          <Link className="link code" to={`/lot/${sample.code}`}>
            {sample.code}
          </Link>
          : its papers and what was found stay one press away.
        </p>
      )}
      {saved && (
        <p role="status" className="mb-4 rounded-md bg-leaf-wash px-4 py-3">
          <span className="figure text-xl">{saved.code} is in the house.</span>{' '}
          <Link className="link" to={saved.wet ? `/lot/${saved.code}` : `/lot/${saved.code}/inspect`}>
            {saved.wet ? 'Begin its ferment diary' : 'Inspect it now'}
          </Link>
        </p>
      )}
      <StepForm
        kind="receive"
        station={null}
        draftId={sample ? `receive.${sample.code}` : 'receive'}
        initial={initial}
        submit="Take it in"
        before={({ choices, choose }) => (
          <div className="mb-4 grid gap-3">
            <Chips
              legend="What came"
              options={WHAT}
              chosen={[(choices['what'] ?? 'beans') as What]}
              choose={([name]) => choose('what', name ?? 'beans')}
            />
            {choices['what'] === 'nibs' && (
              <Chips
                legend="Are they roasted? Raw nibs do not go into a bowl unasked."
                options={ROASTED}
                chosen={[(choices['roasted'] ?? '') as Roasted]}
                choose={([answer]) => choose('roasted', answer ?? '')}
              />
            )}
          </div>
        )}
        head={({ choices, choose }) => (
          <RouteChoice routeId={routeOf(choices)} choose={(id) => choose('routeId', id)} />
        )}
        onSaved={onSaved}
        finish={(values, _, { choices = {} }) => {
          const what = choices['what'] ?? 'beans';
          return {
            ...values,
            currency: values['currency'] ?? currency,
            routeId: routeOf(choices),
            form: what === 'sample' ? 'beans' : what,
            ...(what === 'nibs' ? { roasted: ROASTED_MEANS[(choices['roasted'] ?? '') as Roasted] } : {}),
            sample: what === 'sample',
            ...(sample ? { sampleId: sample.id } : {}),
          };
        }}
      />
    </div>
  );
}
