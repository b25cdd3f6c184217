import { Link } from 'react-router';
import type { WorkView } from '@wunsch/core/api/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { untilWords, useNow } from '../app/DueLine';
import { useApi } from '../parts/api';
import { StationIcon } from '../parts/icons';
import { Marks } from '../parts/marks';
import { Caution, Empty, Figure, Loading, Section } from '../parts/pieces';
import { count, MassUnitHere, span, useHere, useShow, useUnitOf } from '../parts/workshop';
import { GrindRow } from '../grind/GrindRow';
import { Start } from '../workshop/Start';
import { FloorStream } from '../stream/FloorStream';

/** The whole workshop at one glance: what stands where, what runs, what needs a person. */
export function Floor() {
  const floor = useApi('/api/ledger/floor');
  const { view } = useHere();
  const unit = useUnitOf((floor.data?.stations ?? []).map(({ standingMg }) => standingMg));
  const show = useShow(unit);
  const now = useNow();
  if (!floor.data) return <Loading error={floor.error} />;
  const { stations, works, grinds, due, store } = floor.data;
  if (view.empty)
    return (
      <>
        <Start />
        <div className="mt-8">
          <FloorStream floor={floor.data} tall />
        </div>
      </>
    );
  const inHouse = stations.reduce((sum, { standingMg }) => sum + standingMg, 0);
  const next = due[0];
  return (
    <MassUnitHere value={unit}>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-x-8 gap-y-2">
        <h1 className="max-w-3xl text-[1.9rem] leading-tight">
          {next === undefined ? (
            'Nothing needs a person now.'
          ) : (
            <NextWords text={next.text} link={next.link} at={next.at} now={now} />
          )}
        </h1>
        <p className="text-soft">
          <span className="figure text-lg text-ink">{show.mass(inHouse)}</span> between sack and bar,{' '}
          <span className="figure text-lg text-ink">{count(store.pieces)}</span> bars in the store
        </p>
      </div>
      {floor.data.watch.map((row) => (
        <p key={row.station + row.metric} className="mb-3 rounded-md bg-ripe-wash px-4 py-2" role="alert">
          <strong>{row.sentence}</strong>, since about {show.day(row.at)}.{' '}
          <Link className="link" to={`/losses?station=${row.station}&metric=${row.metric}`}>
            See when and why
          </Link>
        </p>
      ))}
      <FloorStream floor={floor.data} tall />
      <p className="label mt-1">
        Thickness is grams: pools are what stands now, necks what passes in a day (mean of the last seven). Press a
        station, or its digit, to work there.
      </p>
      <div className="mt-7 grid gap-10 lg:grid-cols-[minmax(0,1fr)_21rem]">
        <Section title="Under way" aside={`${works.length + grinds.length} at work`}>
          {works.length + grinds.length === 0 ? (
            <Empty title="Every machine is still.">Press a station to begin.</Empty>
          ) : (
            <ul className="rows">
              {grinds.map((grind) => (
                <GrindRow key={grind.batch.id} grind={grind} now={now} />
              ))}
              {works.map((work) => (
                <WorkRow key={work.id} work={work} now={now} />
              ))}
            </ul>
          )}
        </Section>
        <div>
          {floor.data.marked.length > 0 && (
            <Section title="To know about">
              <ul className="rows">
                {floor.data.marked.map(({ code, name, link, marks }) => (
                  <li key={code} className="py-2">
                    <Link to={link} className="link">
                      <span className="code">{code}</span> {name}
                    </Link>
                    <Marks marks={marks} />
                    <span className="block truncate text-sm text-soft" title={marks[0]?.why}>
                      {marks[0]?.why}
                    </span>
                  </li>
                ))}
              </ul>
            </Section>
          )}
          <Section title="In the store">
            <div className="grid grid-cols-2 gap-4">
              <Figure label="Packed bars" value={count(store.pieces)} small />
              <Figure label="At cost" value={show.money(store.valueMilli)} small />
            </div>
            <Link to="/store" className="link mt-3 inline-flex min-h-11 items-center">
              Store and pantry
            </Link>
          </Section>
          <div className="mt-4 grid gap-3">
            <Caution>Raw and roasted stay apart: hands, tubs, air. Raw beans are not ready to eat.</Caution>
          </div>
        </div>
      </div>
    </MassUnitHere>
  );
}

function NextWords({ text, link, at, now }: { text: string; link: string; at: number; now: number }) {
  return (
    <>
      <Link to={link} className="link decoration-2">
        {text}
      </Link>
      <span className={at < now ? 'text-crimson' : ''}>, {untilWords(at, now)}.</span>
    </>
  );
}

function WorkRow({ work, now }: { work: WorkView; now: number }) {
  const show = useShow();
  return (
    <li>
      <Link
        to={`/station/${work.station}?work=${work.id}`}
        className="grid min-h-[60px] grid-cols-[2rem_minmax(0,1fr)_auto_6.5rem] items-center gap-3 py-2 hover:bg-sunk"
      >
        <StationIcon station={work.station} size={26} />
        <span className="min-w-0">
          <span className="block truncate">
            <span className="code">{work.sources.map(({ code }) => code).join(' + ')}</span> {work.sources[0]?.name}
          </span>
          <span className="block truncate text-sm text-soft">
            {STATION_NAMES[work.station]}
            {work.machine !== null && `, ${work.machine}`}, {work.person}
          </span>
        </span>
        <span className="figure text-xl">{show.mass(work.massMg)}</span>
        <span
          className={`text-right text-sm ${work.dueAt !== null && work.dueAt < now ? 'font-bold text-crimson' : ''}`}
        >
          {work.dueAt === null ? `${span(now - work.startedAt)}` : untilWords(work.dueAt, now)}
        </span>
      </Link>
    </li>
  );
}
