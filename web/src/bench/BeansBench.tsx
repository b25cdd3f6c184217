import { useState } from 'react';
import { Link } from 'react-router';
import type { BenchView } from '@wunsch/core/api/types';
import { Empty, HoldingRow, Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { RouteChoice } from './GrindBench';
import { StepForm } from './StepForm';

/** What is in the house, and the door it comes in by. */
export function BeansBench({ view }: { view: BenchView }) {
  const { view: workshop } = useHere();
  const show = useShow();
  const [open, setOpen] = useState(view.waiting.length === 0);
  const [routeId, setRouteId] = useState(
    workshop.routes.find(({ id }) => id === 'whole-bean')?.id ?? workshop.routes[0]?.id ?? '',
  );
  const [form, setForm] = useState<'beans' | 'nibs'>('beans');
  return (
    <div>
      <button type="button" className="button button-main mb-5" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Close' : 'Receive a lot'}
      </button>
      {open && (
        <div className="mb-10">
          <StepForm
            kind="receive"
            station={null}
            draftId="receive"
            initial={{
              currency: { text: workshop.settings.currency },
              netG: { text: '', unit: workshop.settings.massSystem === 'metric' ? 'kg' : 'lb' },
            }}
            path="/api/ledger/steps"
            submit="Take it in"
            before={
              <div className="mb-4 flex gap-2" role="group" aria-label="What came">
                <button type="button" className="chip" aria-pressed={form === 'beans'} onClick={() => setForm('beans')}>
                  Beans
                </button>
                <button type="button" className="chip" aria-pressed={form === 'nibs'} onClick={() => setForm('nibs')}>
                  Nibs
                </button>
              </div>
            }
            head={<RouteChoice routeId={routeId} choose={setRouteId} />}
            finish={(values) => ({ ...values, routeId, form })}
          />
        </div>
      )}
      <Section
        title="In the house"
        aside={
          <Link className="link" to="/lots">
            all lots there ever were
          </Link>
        }
      >
        {view.waiting.length === 0 ? (
          <Empty title="No beans yet.">
            Weigh the sacks, note where they are from and what they cost. Everything after this is worked out from it.
          </Empty>
        ) : (
          <ul className="rows">
            {view.waiting.map((holding) => (
              <HoldingRow key={holding.id} holding={holding}>
                <span className="w-28 text-right text-sm text-soft">{show.money(holding.perKgMilli)} a kg landed</span>
              </HoldingRow>
            ))}
          </ul>
        )}
      </Section>
    </div>
  );
}
