import { useState } from 'react';
import { Link } from 'react-router';
import { OPENING_KINDS, type OpeningKind } from '@wunsch/core/money/opening-command';
import { isCounted } from '@wunsch/core/money/opening';
import { OPENING_COLUMNS, type OpeningRow } from '@wunsch/core/money/opening-table';
import { heavyUnit } from '@wunsch/core/units/price';
import type { FieldSpec } from '../entry/entry';
import { StepForm } from '../entry/StepForm';
import { ask, send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Chips } from '../parts/fields';
import { FilePick } from '../parts/FilePick';
import { KIND_NAMES, Refusal, Section } from '../parts/pieces';
import { RouteChoice } from '../parts/RouteChoice';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';
import { fieldsFor } from '../entry/fields-for';

const NAMES: Partial<Record<OpeningKind, string>> = { mass: 'a batch on the stones', remelt: 'chocolate to remelt' };
const hasCocoa = (what: OpeningKind): boolean => !['beans', 'roasted', 'nibs', 'husk'].includes(what);

/** What is in the house when the book begins: dated, valued, with what is known of its past. */
export function OpeningPage() {
  const { view } = useHere();
  const { currency } = view.settings;
  const specsOf = (what: OpeningKind): FieldSpec[] =>
    fieldsFor(
      'open',
      ['name', { label: 'What it is called' }],
      ['massG', { label: 'Weight, all of it', optional: false }],
      ...(isCounted(what) ? [['pieces', { optional: false }] as const] : []),
      ['value', { unit: currency }],
      'code',
      ...(hasCocoa(what)
        ? ([
            'cocoaPct',
            'withoutButterPct',
            'sugarPct',
            ['allergens', { name: 'allergenWords', label: 'Allergens, apart by commas' }],
          ] as const)
        : (['producer', ['country', { type: 'list' }]] as const)),
      ...(what === 'mass' ? ['targetMicron'] : []),
      ['note', { label: 'What is known of its past', type: 'long' }],
    );
  const [what, setWhat] = useState<OpeningKind>('bars');
  return (
    <>
      <h1 className="text-4xl">What is there already</h1>
      <p className="mt-1 mb-5 max-w-3xl text-soft">
        Everything that was made before this book began. Sacks come in under{' '}
        <Link className="link" to="/station/beans?show=receive">
          Receive a lot
        </Link>
        , sugar and wrappers under{' '}
        <Link className="link" to="/store">
          Buy for the pantry
        </Link>
        ; give those the day they really came.
      </p>
      <div className="mb-4">
        <Chips
          legend="What it is"
          options={OPENING_KINDS.map((kind) => [kind, NAMES[kind] ?? KIND_NAMES[kind]] as const)}
          chosen={[what]}
          choose={([next]) => setWhat(next ?? 'bars')}
        />
      </div>
      <StepForm
        key={what}
        kind="open"
        station={what === 'mass' ? 'grind' : null}
        draftId={`opening.${what}`}
        specs={specsOf(what)}
        before={({ choices, choose }) =>
          what === 'roasted' || what === 'nibs' ? (
            <div className="mb-3">
              <Chips
                legend="Have they been roasted?"
                options={[
                  ['yes', 'Roasted'],
                  ['no', 'Raw'],
                ]}
                chosen={[(choices['roasted'] ?? (what === 'roasted' ? 'yes' : '')) as 'yes' | 'no']}
                choose={([answer]) => choose('roasted', answer ?? '')}
              />
            </div>
          ) : null
        }
        head={({ choices, choose }) => (
          <RouteChoice
            routeId={choices['routeId'] ?? ''}
            choose={(id) => choose('routeId', id)}
            none={what === 'mass' ? 'Choose one' : 'None: it waits where it usually would'}
          />
        )}
        submit="Put it in the book"
        problem={({ choices = {} }) =>
          what === 'mass' && (choices['routeId'] ?? '') === ''
            ? 'A batch on the stones follows a route: choose it.'
            : null
        }
        finish={({ allergenWords, ...values }, _, { choices = {} }) => ({
          ...values,
          what,
          routeId: (choices['routeId'] ?? '') === '' ? null : choices['routeId'],
          roasted:
            what === 'roasted' && !choices['roasted'] ? true : choices['roasted'] ? choices['roasted'] === 'yes' : null,
          allergens: ((allergenWords as string | undefined) ?? '')
            .split(/[,;]+/)
            .map((word) => word.trim())
            .filter((word) => word !== ''),
        })}
      />
      <Section title="As a table">
        <OpeningTable />
      </Section>
    </>
  );
}

function OpeningTable() {
  const { personId, view } = useHere();
  const { settings } = view;
  const show = useShow();
  const [text, setText] = useState('');
  const [routeId, setRouteId] = useState('');
  const [rows, setRows] = useState<OpeningRow[] | null>(null);
  const [codes, setCodes] = useState<string[]>([]);
  const [key, setKey] = useState(newKey);
  const { busy, error, run, fail } = useSave();
  const body = { text, routeId: routeId === '' ? null : routeId };
  const look = (table: string, route: string): void => {
    setCodes([]);
    setRows(null);
    void run(async () => {
      const found = await ask('/api/ledger/opening/preview', {
        text: table,
        routeId: route === '' ? null : route,
      });
      setRows(found.rows);
    });
  };
  const take = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      const { data } = await send('POST', '/api/ledger/opening/table', { ...body, personId }, key);
      setCodes(data.codes);
      setRows(null);
    });
  };
  const bad = (rows ?? []).filter(({ command }) => command === null).length;
  return (
    <div>
      <p className="max-w-3xl text-soft">
        One kind of goods a row (CSV). Headings:{' '}
        {OPENING_COLUMNS.map(({ heads, needed }) => `${heads[0]}${needed ? '*' : ''}`).join(', ')}; a weight heading may
        name its unit, as <em>weight g</em>, else it is read in {heavyUnit(settings.massSystem)}. What it is:{' '}
        {OPENING_KINDS.join(', ')}.
      </p>
      <FilePick
        label="Table of opening stock"
        accept=".csv,.tsv,.txt,text/csv"
        disabled={busy}
        main={false}
        onPick={(file) => {
          void file.text().then((table) => {
            setText(table);
            setKey(newKey());
            look(table, routeId);
          });
        }}
      >
        Choose a table
      </FilePick>
      {rows !== null && (
        <>
          <RouteChoice
            routeId={routeId}
            choose={(id) => {
              setRouteId(id);
              look(text, id);
            }}
            none="None: each waits where it usually would"
          />
          <ol className="rows mt-3">
            {rows.slice(0, 100).map(({ line, command, problems, at }) => (
              <li key={line} className="grid grid-cols-[4rem_minmax(0,1fr)] gap-3 py-2">
                <span className="text-soft">line {line}</span>
                {command ? (
                  <span>
                    {command.name}: {KIND_NAMES[command.what]}, {show.mass((command.massG ?? 0) * 1000)}
                    {command.pieces !== undefined && `, ${count(command.pieces)} pieces`}
                    {at !== null && `, ${at.slice(0, 10)}`}
                  </span>
                ) : (
                  <span className="font-semibold text-crimson">{problems.join('; ')}</span>
                )}
              </li>
            ))}
          </ol>
          <button type="button" className="button button-main mt-3" disabled={busy || bad > 0} onClick={take}>
            {bad > 0 ? `${bad} of ${rows.length} rows cannot be read yet` : `Put all ${rows.length} in the book`}
          </button>
        </>
      )}
      {codes.length > 0 && (
        <p role="status" className="mt-3 rounded-md bg-leaf-wash px-4 py-3">
          In the book:{' '}
          {codes.map((code) => (
            <Link key={code} className="link code mr-2" to={`/tub/${code}`}>
              {code}
            </Link>
          ))}
        </p>
      )}
      <Refusal error={error} />
    </div>
  );
}
