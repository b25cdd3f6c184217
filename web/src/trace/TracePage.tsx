import { Link, useParams } from 'react-router';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { useApi } from '../parts/api';
import { Allergens } from '../parts/Composition';
import { MarkList, Marks } from '../parts/marks';
import { Code, Empty, KIND_NAMES, Loading, Section } from '../parts/pieces';
import { MassUnitHere, count, useShow, useUnitOf } from '../parts/workshop';
import { TagLink } from '../parts/TagLink';
import { BatchStream } from '../stream/BatchStream';
import { DrawnTrace } from './DrawnTrace';

/** From any code back to the sacks and forward to the buyers. */
export function TracePage() {
  const { code = '' } = useParams();
  const answer = useApi(`/api/trace/codes/${encodeURIComponent(code)}`);
  const unit = useUnitOf(
    (answer.data?.forward.goods ?? [])
      .map(({ massMg }) => massMg)
      .concat((answer.data?.back.lots ?? []).map(({ greenMg }) => greenMg)),
  );
  const show = useShow(unit);
  const view = answer.data;
  if (!view)
    return answer.error ? (
      <Empty title={`Nothing here carries the code ${code}.`}>
        Look at the label again: letters and digits as printed. Ctrl K finds parts of codes.
      </Empty>
    ) : (
      <Loading />
    );
  const { subject, back, forward } = view;
  const sold = forward.sales.reduce((sum, { pieces }) => sum + pieces, 0);
  const here = forward.goods.filter(({ massMg }) => massMg > 0);
  return (
    <MassUnitHere value={unit}>
      <h1 className="text-4xl">
        Trace of <span className="code">{subject.code}</span>
      </h1>
      <p className="mt-1 text-lg text-soft">
        {subject.name}, {KIND_NAMES[subject.kind]}.{' '}
        {back.lots.length === 1 ? 'One lot of cacao' : `${back.lots.length} lots of cacao`} behind it;{' '}
        {sold > 0 ? `${count(sold)} ${sold === 1 ? 'piece' : 'pieces'} sold` : 'nothing sold'}, {here.length}{' '}
        {here.length === 1 ? 'holding' : 'holdings'} still here.
      </p>
      <MarkList marks={subject.marks} />
      {view.composition && subject.kind !== 'lot' && <Allergens composition={view.composition} />}
      <DrawnTrace code={subject.code} />
      <p className="mt-2 flex flex-wrap gap-x-6">
        <a
          className="link inline-flex min-h-11 items-center"
          href={`/api/trace/epcis.json?code=${encodeURIComponent(subject.code)}`}
          download={`${subject.code}-epcis.json`}
        >
          Its events as EPCIS 2.0 (JSON)
        </a>
        <Link
          className="link inline-flex min-h-11 items-center"
          to={`/complaints?code=${encodeURIComponent(subject.code)}`}
        >
          Somebody complains of it
        </Link>
        <TagLink code={subject.code} />
      </p>
      <div className="mt-6 grid gap-10 lg:grid-cols-2">
        <div>
          <Section title="Back to the sacks">
            <ul className="rows">
              {back.lots.map((lot) => (
                <li key={lot.id} className="flex flex-wrap items-baseline gap-x-4 py-2">
                  <Code code={lot.code} kind="lot" />
                  <span className="min-w-0 flex-1">
                    {lot.producer}, {lot.country}
                    <span className="block text-sm text-soft">
                      {show.mass(lot.greenMg)} of green beans went into it, from a lot of {lot.sacks} sacks
                    </span>
                  </span>
                  <span className="figure text-lg">{show.percent(lot.share, 0)}</span>
                </li>
              ))}
              {back.ingredients.map((item) => (
                <li key={item.code} className="flex flex-wrap items-baseline gap-x-4 py-2">
                  <Code code={item.code} kind="ingredient" />
                  <span className="min-w-0 flex-1">
                    {item.name}
                    <span className="block text-sm text-soft">
                      {item.supplier}
                      {item.supplierBatch !== '' && `, their batch ${item.supplierBatch}`}
                    </span>
                  </span>
                  <span className="figure text-lg">{show.percent(item.share)}</span>
                </li>
              ))}
            </ul>
          </Section>
        </div>
        <div>
          <Section title="Forward to the buyers">
            {forward.batches.length > 0 && (
              <p className="mb-2 text-sm">
                Through {forward.batches.length} {forward.batches.length === 1 ? 'batch' : 'batches'}:{' '}
                {forward.batches.slice(0, 24).map((batch) => (
                  <span key={batch.code}>
                    <Code code={batch.code} />{' '}
                  </span>
                ))}
              </p>
            )}
            <ul className="rows">
              {here.slice(0, 40).map((item) => (
                <li key={item.code} className="flex flex-wrap items-baseline gap-x-4 py-2">
                  <Code code={item.code} kind={item.kind} />
                  <span className="min-w-0 flex-1">
                    {item.name}
                    <span className="block text-sm text-soft">
                      {KIND_NAMES[item.kind]}, {STATION_NAMES[item.place].toLowerCase()}
                      {item.share < 0.999 && `, ${show.percent(item.share)} of it concerned`}
                    </span>
                    <Marks marks={item.marks} allergens={item.allergens} />
                  </span>
                  <span className="figure text-lg">{item.pieces > 0 ? `${item.pieces}` : show.mass(item.massMg)}</span>
                </li>
              ))}
              {[...forward.sales]
                .reverse()
                .slice(0, 60)
                .map((sale, index) => (
                  <li key={index} className="flex flex-wrap items-baseline gap-x-4 py-2">
                    <Code code={sale.code} />
                    <span className="min-w-0 flex-1">
                      sold to {sale.to === '' ? 'somebody' : sale.to}
                      <span className="block text-sm text-soft">{show.day(sale.at)}</span>
                    </span>
                    <span className="figure text-lg">{sale.pieces > 0 ? sale.pieces : show.mass(sale.massMg)}</span>
                  </li>
                ))}
            </ul>
            {here.length + forward.sales.length === 0 && <p className="text-soft">Nothing went on from here.</p>}
          </Section>
        </div>
      </div>
      {back.stream.length > 1 && (
        <Section title="The way it came">
          <BatchStream stream={back.stream} title={`How ${subject.code} came about`} />
        </Section>
      )}
      <p className="mt-6">
        <Link className="link" to={subject.kind === 'lot' ? `/lot/${subject.code}` : `/tub/${subject.code}`}>
          {subject.code} itself
        </Link>{' '}
        <Link className="link ml-4" to={`/complaints?codes=${subject.code}`}>
          What it shares with others, and taking it back
        </Link>
      </p>
    </MassUnitHere>
  );
}
