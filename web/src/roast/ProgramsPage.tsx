import { Link } from 'react-router';
import type { ProgramView } from '@wunsch/core/api/roast';
import { READY_MADE } from '@wunsch/core/roast/ready-made';
import { send, useApi } from '../parts/api';
import { Caution, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { ProgramGlyph } from './ProgramGlyph';
import { RoastingHead } from './RoastingNav';
import { SCHOOL_NAMES, stepWords } from './words';

/** The workshop's programs, the ones to start from, and the ways without a roast. */
export function ProgramsPage() {
  const show = useShow();
  const answer = useApi('/api/roast/programs');
  if (!answer.data) return <Loading error={answer.error} />;
  const { programs } = answer.data;
  const used = programs.filter(({ shelved }) => !shelved);
  const shelved = programs.filter((row) => row.shelved);
  return (
    <>
      <RoastingHead title="Roast programs">
        What a roaster is set to, and for how long or until what. A saved version is never changed: a load always knows
        which one it went by.
      </RoastingHead>
      <div className="grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div>
          {used.length === 0 ? (
            <ToStartFrom title="Take one of these, and change what your nose knows better" wide />
          ) : (
            <Section title="Yours">
              <ul className="rows">
                {used.map((row) => (
                  <Own key={row.id} row={row} />
                ))}
              </ul>
            </Section>
          )}
          {shelved.length > 0 && (
            <Section title="Put aside">
              <ul className="rows">
                {shelved.map((row) => (
                  <Own key={row.id} row={row} />
                ))}
              </ul>
            </Section>
          )}
        </div>
        <div>
          {used.length > 0 && <ToStartFrom title="To start from" />}
          <Section title="Without a roast">
            <p className="text-sm">
              The route <em>Unroasted</em> passes from the sorting table straight to the winnower; <em>Nib roast</em>{' '}
              winnows first and roasts the nibs. Both are chosen when a lot comes in, and among the{' '}
              <Link className="link" to="/workshop">
                routes
              </Link>
              .
            </p>
            <div className="mt-3 grid gap-3">
              <Caution>
                Unroasted: no heat kills what raw beans carry. What makes it fit to eat has to be shown another way, and
                the local authority decides. Keep the mass at {show.temp(42)}, never over about {show.temp(47)}.
              </Caution>
              <Caution>
                Nib roast: the first, short heat loosens the shell and is no kill step. Raw shell dust travels: winnow
                away from what is roasted. Nibs scorch sooner than beans.
              </Caution>
            </div>
          </Section>
        </div>
      </div>
    </>
  );
}

/** The ready-made programs, each with its reason. */
function ToStartFrom({ title, wide = false }: { title: string; wide?: boolean }) {
  return (
    <Section title={title} aside="one for each school">
      <ul className={wide ? 'grid gap-x-10 sm:grid-cols-2' : 'rows'}>
        {READY_MADE.map((program, index) => (
          <li key={program.name} className={wide ? 'border-t border-rule py-3' : 'py-3'}>
            <Link className="group flex items-start gap-4" to={`/roasting/program/new?from=${index}`}>
              <ProgramGlyph steps={program.steps} />
              <span className="min-w-0 flex-1">
                <span className="link text-lg">{program.name}</span>
                <span className="block text-sm text-soft">{program.reason}</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Own({ row }: { row: ProgramView }) {
  const show = useShow();
  const { personId } = useHere();
  const { error, run, fail } = useSave();
  const { program } = row;
  const shelve = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `/api/roast/programs/${row.id}/shelve`, { personId, shelved: !row.shelved }));
  };
  return (
    <li className="py-3">
      <div className="flex flex-wrap items-start gap-x-5 gap-y-1">
        <ProgramGlyph steps={program.steps} />
        <div className="min-w-0 flex-1 basis-48">
          <Link className="link text-lg" to={`/roasting/program/${row.id}`}>
            {program.name}
          </Link>
          <span className="text-sm text-soft">
            {' '}
            version {row.version}, {SCHOOL_NAMES[program.school].toLowerCase()}
            {program.kind === 'nib' && ', nibs'}
            {row.roaster !== null && `, ${row.roaster}`}
          </span>
          <p>{program.steps.map((step) => stepWords(step, show)).join(', ')}</p>
          {program.reason !== '' && <p className="text-sm text-soft">{program.reason}</p>}
          {program.suits.length > 0 && (
            <p className="text-sm text-soft">
              Suits {program.suits.map(({ family, why }) => `${family}${why === '' ? '' : ` (${why})`}`).join('; ')}.
            </p>
          )}
        </div>
        <div className="text-right">
          <span className="figure text-xl">{row.loads}</span>
          <span className="block text-sm text-soft">
            {row.loads === 1 ? 'load' : 'loads'}
            {row.lastAt !== null && <span className="block">last {show.day(row.lastAt)}</span>}
          </span>
          <button type="button" className="button button-quiet pr-0!" onClick={shelve}>
            {row.shelved ? 'Take it back' : 'Put aside'}
          </button>
        </div>
      </div>
      <Refusal error={error} />
    </li>
  );
}
