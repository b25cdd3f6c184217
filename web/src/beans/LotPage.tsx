import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { BeanLotView } from '@wunsch/core/api/beans';
import type { LotView } from '@wunsch/core/api/types';
import { ACTION_NAMES } from '@wunsch/core/beans/words';
import { useApi } from '../parts/api';
import { TagLink } from '../parts/TagLink';
import { Log } from '../parts/log';
import { Caution, Figure, Loading, Section } from '../parts/pieces';
import { count, useShow, MassUnitHere, useUnitOf } from '../parts/workshop';
import { SortFindings } from '../sort/SortFindings';
import { BatchStream } from '../stream/BatchStream';
import { CutShares } from './CutShares';
import { HarvestPanel } from './HarvestPanel';
import { HoldPanel } from './HoldPanel';
import { PapersForm } from './PapersForm';
import { Pictures } from './Pictures';
import { RecordLog } from './RecordLog';
import { SackSection } from './SackSection';
import { VerdictPanel } from './VerdictPanel';
import { Overrule } from '../parts/Overrule';

const WorldMap = lazy(() => import('./WorldMap'));

/** One lot: where it stands, what was found, what it will give, its papers, and everything it became. */
export function LotPage() {
  const { code = '' } = useParams();
  const path = encodeURIComponent(code);
  const flow = useApi(`/api/trace/lots/${path}`);
  const beans = useApi(`/api/beans/lots/${path}`);
  const unit = useUnitOf([flow.data?.receivedMg ?? 0]);
  if (!flow.data || !beans.data) return <Loading error={flow.error ?? beans.error} />;
  return (
    <MassUnitHere value={unit}>
      <Lot key={beans.data.id} view={flow.data} lot={beans.data} />
    </MassUnitHere>
  );
}

const BADGES: Record<BeanLotView['standing'], string> = {
  wet: 'bg-ripe-wash',
  sample: 'bg-sunk',
  'not looked at': 'bg-ripe-wash',
  'taken in': 'bg-leaf-wash',
  'on hold': 'bg-ripe-wash',
  refused: 'bg-crimson-wash',
};

function Lot({ view, lot }: { view: LotView; lot: BeanLotView }) {
  const [papers, setPapers] = useState(false);
  const newest = lot.inspections.at(-1);
  const beans = lot.facts.form !== 'nibs';
  // Nothing found and nothing sorted yet: the papers take the whole width.
  const bare = lot.standing === 'wet' && !newest;
  const wantsHold = beans && (lot.standing === 'on hold' || lot.leftG > 0) && lot.standing !== 'wet';
  return (
    <>
      <div className="flex flex-wrap items-start justify-between gap-x-6 gap-y-3">
        <div className="min-w-0">
          <h1 className="text-4xl">
            <span className="code">{lot.code}</span> {lot.name}
          </h1>
          <p className="mt-1">
            <span className={`inline-block rounded-full px-3 py-1 font-semibold ${BADGES[lot.standing]}`}>
              {lot.standing}
            </span>{' '}
            {lot.decision && (
              <span className="text-soft">
                {ACTION_NAMES[lot.decision.value.action].toLowerCase()}, {lot.decision.person}
                {lot.decision.value.word !== '' && `: ${lot.decision.value.word}`}
              </span>
            )}
            {lot.sampleOf && (
              <span className="text-soft">
                {' '}
                bought on sample{' '}
                <Link className="link" to={`/lot/${lot.sampleOf.code}`}>
                  {lot.sampleOf.code}
                </Link>
              </span>
            )}
            {lot.boughtAs.map(({ code }) => (
              <span key={code} className="text-soft">
                {' '}
                bought as{' '}
                <Link className="link" to={`/lot/${code}`}>
                  {code}
                </Link>
              </span>
            ))}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          {lot.leftG > 0 && lot.standing !== 'wet' && (
            <Link
              className={`button ${lot.standing === 'not looked at' || lot.standing === 'sample' ? 'button-main' : ''}`}
              to={`/lot/${lot.code}/inspect`}
            >
              {newest ? 'Inspect again' : 'Inspect it'}
            </Link>
          )}
          {lot.standing === 'sample' && (
            <Link className="button" to={`/station/beans?show=receive&sample=${lot.code}`}>
              Buy this
            </Link>
          )}
          {lot.leftG > 0 && (lot.standing === 'taken in' || lot.standing === 'sample') && (
            <Link className="button" to={`/roasting/trial/new?lot=${lot.code}`}>
              Plan a roast trial
            </Link>
          )}
          <a className="button" href={`/api/beans/lots/${lot.code}/sheet.pdf`} target="_blank" rel="noreferrer">
            Lot sheet
          </a>
          <TagLink code={lot.code} words="Sack labels" sacks />
        </div>
      </div>
      {lot.standing === 'wet' || lot.harvest ? <HarvestPanel lot={lot} /> : null}
      {wantsHold && <HoldPanel lot={lot} />}
      <Figures lot={lot} view={view} />
      {view.stream.length > 1 && (
        <Section
          title="What became of it"
          aside={
            <Link className="link" to={`/trace/${lot.code}`}>
              trace every bar
            </Link>
          }
        >
          <BatchStream stream={view.stream} title={`Stream of ${lot.code}`} />
        </Section>
      )}
      {papers && (
        <div className="mt-6">
          <PapersForm lot={lot} done={() => setPapers(false)} />
        </div>
      )}
      <div className={`mt-8 grid gap-10 ${bare ? '' : 'lg:grid-cols-[minmax(0,1fr)_22rem]'}`}>
        <div className={bare ? 'hidden' : 'min-w-0'}>
          {newest && (
            <Section title="Inspected" aside={<InspectedBy lot={lot} />}>
              <VerdictPanel verdict={newest.arrival} title="What the findings say" />
              <Overrule judged="arrival" subject={lot.id} said={newest.arrival.sentence} />
              <div className="mt-4">
                <CutShares inspection={newest} />
              </div>
            </Section>
          )}
          {lot.sort.summary.sessions > 0 && (
            <Section title="Sorted" aside={`${lot.sort.summary.sessions} sessions`}>
              <SortFindings view={lot.sort} />
            </Section>
          )}
          {lot.claim.rows.length > 0 && <Claim lot={lot} />}
          {lot.facts.form !== 'wet' && <SackSection lot={lot} />}
          <Batches view={view} />
        </div>
        <div className={bare ? 'grid gap-10 *:mt-0! md:grid-cols-2 xl:grid-cols-3' : ''}>
          <Papers lot={lot} edit={() => setPapers(true)} />
          <Section title="Pictures and papers">
            <Pictures code={lot.code} files={lot.files} />
          </Section>
          <Section title="Written down">
            <RecordLog records={lot.records} />
          </Section>
          <Section title="Log">
            <Log steps={view.steps.slice(0, 14)} />
          </Section>
        </div>
      </div>
    </>
  );
}

function InspectedBy({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const newest = lot.inspections.at(-1);
  return newest ? `${newest.person}, ${show.day(newest.at)}` : null;
}

function Figures({ lot, view }: { lot: BeanLotView; view: LotView }) {
  const show = useShow();
  const { expected } = lot;
  const readings = lot.inspections.at(-1)?.value.moisturePct ?? [];
  const moisture = readings.length > 0 ? readings.reduce((a, b) => a + b, 0) / readings.length : lot.facts.moisturePct;
  // To ten where there are hundreds, so that it does not look more exact than it is; to one where there are few.
  const step = expected.bars.mean >= 200 ? 10 : 1;
  const round = (value: number): string => count(Math.round(value / step) * step);
  return (
    <div className="mt-6 grid grid-cols-2 gap-x-6 gap-y-5 sm:grid-cols-4">
      <Figure
        label="Left of it"
        value={show.mass(lot.leftG * 1000)}
        note={`${show.percent(lot.leftG / Math.max(1, lot.receivedG), 0)} of ${show.mass(lot.receivedG * 1000)}, ${lot.facts.sacks} ${lot.facts.sacks === 1 ? 'sack' : 'sacks'}`}
      />
      <Figure
        label="It will still give"
        value={lot.leftG > 0 ? `${round(expected.bars.mean)} bars` : 'nothing'}
        note={
          lot.leftG > 0 ? (
            <>
              {round(expected.bars.low)} to {round(expected.bars.high)}, {show.mass(expected.nibsG.low * 1000)} to{' '}
              {show.mass(expected.nibsG.high * 1000)} of nibs; {Math.round(100 * expected.level)}&nbsp;%, by{' '}
              {basisWords(expected.basis)}
            </>
          ) : (
            `${count(view.batches.reduce((sum, { bars }) => sum + bars, 0))} bars have some of it`
          )
        }
      />
      <Figure
        label="Landed"
        value={show.price(lot.landedPerKgMilli)}
        note={`a ${show.heavyWord} of green beans, with freight, duty and hands`}
      />
      <Figure
        label="Moisture"
        value={moisture === null ? '–' : `${moisture.toFixed(1)}\u00a0%`}
        note={
          moisture === null ? (
            'not measured'
          ) : moisture > 8 ? (
            <strong className="text-crimson">over 8 %: mould grows</strong>
          ) : moisture < 6 ? (
            'under 6 %: brittle shell'
          ) : (
            'at most 8 % wanted'
          )
        }
      />
    </div>
  );
}

/** Whose yields an expectation rests on. */
function basisWords(basis: BeanLotView['expected']['basis']): string {
  const whose = [...new Set(basis.map((row) => row.whose))];
  return whose.length === 1 && whose[0]
    ? `${whose[0]}’s yields`.replace('the trade’s', 'the trade’s usual')
    : 'yields of this lot and its family';
}

function Claim({ lot }: { lot: BeanLotView }) {
  return (
    <Section
      title="Against the contract"
      aside={
        <a className="link" href={`/api/beans/lots/${lot.code}/claim.pdf`} target="_blank" rel="noreferrer">
          claim sheet, PDF
        </a>
      }
    >
      <p className="figure mb-2 text-xl">{lot.claim.sentence}</p>
      <div className="rows">
        {lot.claim.rows.map((row) => (
          <div
            key={row.what}
            className="grid grid-cols-[minmax(0,1fr)_4rem_auto] items-baseline gap-x-4 py-1.5 sm:grid-cols-[minmax(0,1fr)_4rem_4rem_9rem_6.5rem]"
          >
            <span>{row.what}</span>
            <span className="figure text-right">{row.found}</span>
            <span className="hidden text-right text-sm text-soft sm:block">of {row.limit}</span>
            <span className="hidden text-sm text-soft sm:block">{row.interval}</span>
            <span className={row.word === 'within' ? 'text-soft' : 'font-semibold text-crimson'}>{row.word}</span>
          </div>
        ))}
      </div>
    </Section>
  );
}

function Batches({ view }: { view: LotView }) {
  const show = useShow();
  if (view.batches.length === 0) return null;
  return (
    <Section title="Batches with some of it">
      <ul className="rows">
        {view.batches.slice(0, 60).map(({ batch, share, bars, score }) => (
          <li key={batch.id} className="grid grid-cols-[4rem_minmax(0,1fr)_4rem_5rem_3rem] items-baseline gap-3 py-2">
            <Link className="code link" to={`/batch/${batch.code}`}>
              {batch.code}
            </Link>
            <span className="truncate">{batch.name}</span>
            <span className="text-right text-sm text-soft">{share > 0.999 ? 'all' : show.percent(share, 0)}</span>
            <span className="text-right">{bars > 0 ? `${bars} bars` : ''}</span>
            <span className="figure text-right">{score === null ? '' : score.toFixed(1)}</span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Papers({ lot, edit }: { lot: BeanLotView; edit: () => void }) {
  const show = useShow();
  const [map, setMap] = useState(false);
  const { papers, facts } = lot;
  const list = (parts: readonly string[]): string => parts.filter((part) => part !== '').join(', ');
  const rows: [string, string][] = [
    ['Producer', list([facts.producer, papers.people])],
    ['From', list([facts.country, facts.region, papers.altitudeM === null ? '' : `${papers.altitudeM} m`])],
    ['Variety', facts.variety],
    ['Harvest', facts.harvest],
    [
      'Fermented',
      list([
        papers.vessel === '' ? '' : `in a ${papers.vessel}`,
        papers.fermentDays === null ? '' : `${papers.fermentDays} days`,
        papers.turns === null ? '' : `turned ${papers.turns} times`,
      ]),
    ],
    ['Dried', list([papers.dryingBy, papers.dryingDays === null ? '' : `${papers.dryingDays} days`])],
    ['Claimed', papers.certificates.join(', ')],
    [
      'Invoice',
      facts.invoiceNetG ? `${show.mass(facts.invoiceNetG * 1000)}, ${facts.invoiceSacks ?? facts.sacks} sacks` : '',
    ],
    ['Price', facts.pricePerKg === undefined ? '' : show.priceIn(facts.pricePerKg, facts.currency ?? '')],
    ['Route', lot.route.name],
    ['Received', show.day(lot.receivedAt)],
    ['Note', list([papers.note, facts.note])],
  ];
  return (
    <Section
      title="Papers"
      aside={
        <span className="flex justify-end gap-3">
          <Link className="link" to={`/step/${lot.receiptId}`}>
            receipt
          </Link>
          <button type="button" className="link" onClick={edit}>
            write them
          </button>
        </span>
      }
    >
      <dl className="rows">
        {rows
          .filter(([, value]) => value !== '')
          .map(([name, value]) => (
            <div key={name} className="grid grid-cols-[5.5rem_1fr] gap-3 py-1.5">
              <dt className="text-soft">{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
      </dl>
      {papers.location && (
        <>
          <button type="button" className="button button-quiet" aria-expanded={map} onClick={() => setMap(!map)}>
            {map ? 'Close the map' : 'Show it on the map'}
          </button>
          {map && (
            <Suspense fallback={<div className="aspect-[12/5]" />}>
              <WorldMap point={papers.location} />
            </Suspense>
          )}
        </>
      )}
      <div className="mt-4">
        <Caution>Raw beans are not ready to eat: keep raw and roasted apart.</Caution>
      </div>
    </Section>
  );
}
