import { Link, useParams } from 'react-router';
import type { RecallView } from '@wunsch/core/api/recall';
import { LOSS_NAMES } from '@wunsch/core/ledger/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { useNow } from '../app/DueLine';
import { send, useApi } from '../parts/api';
import { useKept } from '../parts/draft';
import { Box } from '../parts/fields';
import { Caution, Code, Figure, KIND_NAMES, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { MassUnitHere, count, span, useHere, useShow, useUnitOf } from '../parts/workshop';

/** Goods that are taken back: where they are, who bought them, what is blocked and released. */
export function RecallPage() {
  const { id = '' } = useParams();
  const answer = useApi(`/api/trace/recalls/${id}`);
  const view = answer.data;
  const unit = useUnitOf([...(view?.here ?? []), ...(view?.sold ?? [])].map(({ massMg }) => massMg));
  if (!view) return <Loading error={answer.error} />;
  return (
    <MassUnitHere value={unit}>
      <Recalled view={view} />
    </MassUnitHere>
  );
}

function Recalled({ view }: { view: RecallView }) {
  const show = useShow();
  const now = useNow(1000);
  const amount = (pieces: number, massMg: number): string => (pieces > 0 ? `${count(pieces)} bars` : show.mass(massMg));
  const hereBars = view.here.reduce((sum, { pieces }) => sum + pieces, 0);
  const soldBars = view.sold.reduce((sum, { pieces }) => sum + pieces, 0);
  const blocked = view.here.filter((row) => row.blocked).length;
  return (
    <div className="grid gap-10 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div className="min-w-0">
        <h1 className="text-4xl">
          {view.mock ? 'A recall, practised' : 'Recall'}{' '}
          <span className="code text-3xl">{view.codes.slice(0, 3).join(', ')}</span>
          {view.codes.length > 3 && <span className="text-2xl"> and {view.codes.length - 3} more</span>}
        </h1>
        <p className="mt-1 text-lg">{view.why}</p>
        <p className="text-soft">
          {show.moment(view.at)}, {view.person}.{' '}
          {view.endedAt === null
            ? `Under way for ${span(now - view.at)}.`
            : `Ended after ${span(view.endedAt - view.at)}: ${view.endWord}`}
        </p>
        <div className="mt-6 grid grid-cols-2 gap-6 sm:grid-cols-4">
          <Figure
            label="Still here"
            value={hereBars > 0 ? count(hereBars) : show.mass(view.hereMg)}
            note={hereBars > 0 ? `bars, ${show.mass(view.hereMg)} in all` : ''}
          />
          <Figure
            label="With buyers"
            value={count(soldBars)}
            note={`bars, ${view.buyers.length} ${view.buyers.length === 1 ? 'buyer' : 'buyers'}`}
          />
          <Figure
            label="Gone"
            value={show.mass(view.lostMg)}
            note={view.lost.map(({ cause }) => LOSS_NAMES[cause].toLowerCase()).join(', ')}
          />
          <Figure label="Found again" value={show.percent(view.foundShare)} note="of its grams" />
        </div>
        <Section id="buyers" title="Who bought it">
          {view.buyers.length === 0 ? (
            <p className="text-soft">Nobody: nothing of it has left the house.</p>
          ) : (
            <ul className="rows">
              {view.buyers.map((buyer) => (
                <li key={buyer.to} className="py-2">
                  <div className="flex flex-wrap items-baseline gap-x-4">
                    <span className="flex-1 text-lg">{buyer.to === '' ? 'Somebody without a name' : buyer.to}</span>
                    <span className="figure text-lg">{amount(buyer.pieces, buyer.massMg)}</span>
                  </div>
                  <p className="text-sm text-soft">
                    {view.sold
                      .filter(({ to }) => to === buyer.to)
                      .map((row) => `${row.code} ${show.day(row.at)}: ${amount(row.pieces, row.massMg)}`)
                      .join('; ')}
                  </p>
                </li>
              ))}
            </ul>
          )}
        </Section>
        <Section
          id="here"
          title="Still here"
          aside={view.mock ? 'for practice: not blocked' : `${blocked} of ${view.here.length} blocked`}
        >
          {view.here.length === 0 ? (
            <p className="text-soft">Nothing of it is in the house any more.</p>
          ) : (
            <ul className="rows">
              {view.here.map((row) => (
                <li key={row.code} className="flex flex-wrap items-baseline gap-x-4 py-2">
                  <Code code={row.code} kind={row.kind} />
                  <span className="min-w-0 flex-1">
                    {row.name}
                    <span className="block text-sm text-soft">
                      {KIND_NAMES[row.kind]}, {STATION_NAMES[row.place].toLowerCase()}
                      {row.share < 0.999 && `, ${show.percent(row.share)} of it concerned`}
                    </span>
                  </span>
                  {row.blocked && <strong className="text-crimson">blocked</strong>}
                  <span className="figure text-lg">{amount(row.pieces, row.massMg)}</span>
                </li>
              ))}
            </ul>
          )}
        </Section>
      </div>
      <aside aria-label="What to do" className="grid content-start gap-4">
        <a
          className="button button-main"
          href={`/api/trace/recalls/${view.id}/letter.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          Letter to the buyers (PDF)
        </a>
        <a className="button" href={`/api/trace/recalls/${view.id}/sheet.csv`}>
          Sheet (CSV)
        </a>
        {blocked > 0 && (
          <Word
            view={view}
            way="release"
            label="Why it may go again"
            words={`Release ${blocked === 1 ? 'it' : `all ${blocked}`} by name`}
          />
        )}
        {view.endedAt === null && <Word view={view} way="end" label="How it ended" words="End this recall" />}
        <Link className="button button-quiet" to="/complaints">
          Complaints and recalls
        </Link>
        <Caution>
          Who has to be told, and how soon, the food law of the place decides. Goods that came back stay apart until you
          know why.
        </Caution>
      </aside>
    </div>
  );
}

/** A word that is kept, and what it does. */
function Word({ view, way, label, words }: { view: RecallView; way: 'release' | 'end'; label: string; words: string }) {
  const { personId } = useHere();
  const [word, setWord, forget] = useKept(`recall.${view.id}.${way}`, '');
  const { busy, error, run, fail } = useSave();
  const go = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `/api/trace/recalls/${view.id}/${way}`, { personId, word })).then(
      (kept) => kept && forget(),
    );
  };
  return (
    <div>
      <Box label={label} value={word} onChange={setWord} onEnter={go} />
      <button type="button" className="button mt-2" disabled={busy} onClick={go}>
        {words}
      </button>
      <Refusal error={error} />
    </div>
  );
}
