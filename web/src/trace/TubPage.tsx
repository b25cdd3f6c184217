import { Link, useParams } from 'react-router';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { StepForm } from '../entry/StepForm';
import { LabelPanel } from '../pack/LabelPanel';
import { CHOCOLATE_KINDS } from '@wunsch/core/ledger/types';
import { useApi } from '../parts/api';
import { cocoaNote, CompositionTable } from '../parts/Composition';
import { MarkList } from '../parts/marks';
import { Log } from '../parts/log';
import { TagLink } from '../parts/TagLink';
import { Figure, KIND_NAMES, Loading, Section } from '../parts/pieces';
import { MassUnitHere, count, useShow, useUnitOf } from '../parts/workshop';
import { fieldsFor } from '../entry/fields-for';

/** Any labelled container: what is in it, what it cost, where it came from, and a count of what is really there. */
export function TubPage() {
  const { code = '' } = useParams();
  const answer = useApi(`/api/ledger/holdings/${encodeURIComponent(code)}`);
  const unit = useUnitOf([answer.data?.holding.massMg ?? 0]);
  const show = useShow(unit);
  const view = answer.data;
  if (!view) return <Loading error={answer.error} />;
  const { holding, composition } = view;
  const counted = holding.pieces > 0 || holding.kind === 'packaging';
  const chocolate = CHOCOLATE_KINDS.includes(holding.kind) || holding.kind === 'ingredient';
  const roasted = view.steps.some(
    (step) => step.kind === 'roast' && step.lines.some(({ code: made, massMg }) => made === holding.code && massMg > 0),
  );
  const gone = holding.massMg === 0 && holding.pieces === 0;
  return (
    <MassUnitHere value={unit}>
      <h1 className="text-4xl">
        <span className="code">{holding.code}</span> {holding.name}
      </h1>
      <p className="mt-1 text-lg text-soft">
        {KIND_NAMES[holding.kind]}, {gone ? 'all used' : STATION_NAMES[holding.place].toLowerCase()}, since{' '}
        {show.day(holding.since)}
        {holding.batchCode !== null && (
          <>
            , batch{' '}
            <Link className="code link" to={`/batch/${holding.batchCode}`}>
              {holding.batchCode}
            </Link>
          </>
        )}
      </p>
      <MarkList marks={holding.marks} />
      <div className="mt-5 grid grid-cols-2 gap-x-6 gap-y-5 sm:grid-cols-4">
        <Figure
          label="There"
          value={counted ? count(holding.pieces) : show.mass(holding.massMg)}
          note={
            counted && holding.massMg > 0
              ? show.mass(holding.massMg)
              : holding.freeMg < holding.massMg
                ? `${show.mass(holding.freeMg)} free, the rest in work`
                : gone
                  ? 'nothing left'
                  : undefined
          }
        />
        <Figure
          label="Cost"
          value={counted ? show.money(holding.perPieceMilli) : show.price(holding.perKgMilli)}
          note={counted ? 'a piece' : `a ${show.heavyWord}`}
        />
        {chocolate && (
          <Figure
            label="Cocoa"
            value={`${composition.cocoaPct.toFixed(1)}\u00a0%`}
            note={
              view.chocolatePct === null
                ? cocoaNote(composition)
                : `of the whole; ${view.chocolatePct.toFixed(1)}\u00a0% of its chocolate alone`
            }
          />
        )}
        {holding.lots.length > 0 && (
          <Figure
            label="From"
            value={holding.lots.map(({ code: lot }) => lot).join(', ')}
            note={view.origin.sentence}
            small
          />
        )}
      </div>
      <p className="mt-4">
        <Link className="link inline-flex min-h-11 items-center" to={`/trace/${holding.code}`}>
          Back to the sacks, forward to the buyers
        </Link>
        <span className="ml-6">
          <TagLink code={holding.code} />
        </span>
        {roasted && (
          <Link className="link ml-6 inline-flex min-h-11 items-center" to={`/roasting/load/${holding.code}`}>
            How it was roasted
          </Link>
        )}
      </p>
      <div className="mt-6 grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div>
          {holding.kind === 'packed' && <LabelPanel code={holding.code} />}
          {chocolate && composition.parts.length > 0 && (
            <Section title="What is in it">
              <CompositionTable composition={composition} totalMg={gone ? undefined : holding.massMg} />
            </Section>
          )}
          {(holding.kind === 'bars' || holding.kind === 'seconds' || holding.kind === 'packed') && !gone && (
            <Section title="Send back to be melted">
              <StepForm
                kind="remelt"
                station={null}
                draftId={`remelt.${holding.id}`}
                candidates={[holding]}
                initialPicked={[holding.id]}
                submit="Send to remelt"
                finish={(values, sources) => ({ ...values, sources })}
              />
            </Section>
          )}
          {!gone && (
            <Section title="Count or weigh what is really there">
              <StepForm
                kind="adjust"
                station={null}
                draftId={`adjust.${holding.id}`}
                specs={fieldsFor(
                  'adjust',
                  [counted ? 'countedPieces' : 'countedG', { optional: false }],
                  ['cause', { choices: CAUSES }],
                  'note',
                )}
                initial={{ cause: { text: 'unaccounted' } }}
                submit="Book the difference"
                finish={(values, _, entry) => ({
                  ...values,
                  cause: entry.fields['cause']?.text ?? 'unaccounted',
                  holdingId: holding.id,
                })}
              />
            </Section>
          )}
        </div>
        <Section title="Log">
          <Log steps={[...view.steps].reverse()} />
        </Section>
      </div>
    </MassUnitHere>
  );
}

const CAUSES = [
  { value: 'unaccounted', label: 'Nobody knows' },
  { value: 'sample', label: 'Samples' },
  { value: 'dust', label: 'Spilled' },
  { value: 'trimming', label: 'Trimmed' },
  { value: 'write-off', label: 'Written off' },
] as const;
