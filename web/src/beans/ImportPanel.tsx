import { useState } from 'react';
import { Link } from 'react-router';
import type { ImportPreview } from '@wunsch/core/api/beans';
import { IMPORT_LABELS, type ImportField, type WeightUnit } from '@wunsch/core/beans/import-fields';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { FilePick } from '../parts/FilePick';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { RouteChoice } from '../parts/RouteChoice';
import { SelectBox } from '../parts/choice';

const UNITS: readonly WeightUnit[] = ['kg', 'g', 'lb', 't'];

/** Lots from a table: its columns found and shown, every bad row named, then all or nothing. */
export function ImportPanel() {
  const { view: workshop, personId } = useHere();
  const show = useShow();
  const [text, setText] = useState<string | null>(null);
  const [preview, setPreview] = useState<ImportPreview | null>(null);
  const [routeId, setRouteId] = useState(workshop.routes[0]?.id ?? '');
  const [codes, setCodes] = useState<string[] | null>(null);
  const [key, setKey] = useState(newKey);
  const { busy, error, run, fail } = useSave();
  const look = (
    table: string,
    chosen: Partial<Pick<ImportPreview, 'mapping' | 'unit' | 'pricePer'>> = {},
  ): Promise<boolean> =>
    run(async () => {
      setPreview(null);
      setCodes(null);
      const { data } = await send('POST', '/api/beans/import/preview', {
        text: table,
        routeId,
        ...chosen,
      });
      setPreview(data);
    });
  const choose = async (file: File): Promise<void> => {
    if (file.size > 900_000) return fail(`${file.name} is larger than a table of lots: at most 0.9 MB.`);
    const table = await file.text();
    setText(table);
    setKey(newKey());
    await look(table);
  };
  const take = (): void => {
    if (personId === null) return fail(NOBODY);
    if (!preview || text === null) return;
    void run(async () => {
      const { data } = await send('POST', '/api/beans/import', { text, routeId, ...chosenIn(preview), personId }, key);
      setCodes(data.codes);
      setPreview(null);
    });
  };
  return (
    <div>
      <p className="max-w-2xl">
        A table with one lot a row (CSV; comma, semicolon or tab). Name, producer, country, sacks, net weight and price
        are needed; the other columns are taken where they are found.{' '}
        <a className="link" href="/api/beans/lots.csv" download="lots.csv">
          All lots as such a table
        </a>
      </p>
      <FilePick
        label="Table of lots"
        accept=".csv,.tsv,.txt,text/csv"
        disabled={busy}
        main
        onPick={(file) => void choose(file)}
      >
        Choose a table
      </FilePick>
      <Refusal error={error} />
      {codes && (
        <p role="status" className="mt-4 rounded-md bg-leaf-wash px-4 py-3">
          {codes.length === 1 ? 'One lot came in' : `${codes.length} lots came in`}:{' '}
          {codes.map((code) => (
            <Link key={code} className="link code mr-2" to={`/lot/${code}`}>
              {code}
            </Link>
          ))}
        </p>
      )}
      {preview && (
        <div className="mt-6">
          <p className="figure text-2xl">
            {preview.bad === 0
              ? preview.good === 1
                ? 'One lot can come in.'
                : `${preview.good} lots can come in.`
              : `${preview.bad} of ${preview.rows.length} rows cannot be read yet.`}
          </p>
          <div className="mt-4 grid grid-cols-2 gap-3 md:grid-cols-4">
            {IMPORT_LABELS.map(({ name, label, needed }) => (
              <SelectBox
                key={name}
                label={
                  <>
                    {label}
                    {needed && ' *'}
                  </>
                }
                value={String(preview.mapping[name] ?? '')}
                options={[
                  ['', '–'],
                  ...preview.headings.map(
                    (heading, index) => [String(index), heading || `column ${index + 1}`] as const,
                  ),
                ]}
                onChange={(value) => {
                  const column = value === '' ? null : Number(value);
                  const mapping = { ...preview.mapping, [name]: column };
                  // Another column may name another unit.
                  const { unit, pricePer } = preview;
                  const units = {
                    ...(name === 'netG' ? {} : { unit }),
                    ...(name === 'pricePerKg' ? {} : { pricePer }),
                  };
                  if (text !== null) void look(text, { mapping, ...units });
                }}
              />
            ))}
            <SelectBox
              label="Weights are in"
              value={preview.unit}
              options={UNITS.map((unit) => [unit, unit] as const)}
              onChange={(unit) => text !== null && void look(text, { ...chosenIn(preview), unit })}
            />
            <SelectBox
              label="Prices are of a"
              value={preview.pricePer}
              options={UNITS.map((unit) => [unit, unit] as const)}
              onChange={(pricePer) => text !== null && void look(text, { ...chosenIn(preview), pricePer })}
            />
          </div>
          <RouteChoice routeId={routeId} choose={setRouteId} />
          <ol className="rows mt-4">
            {preview.rows.slice(0, 100).map((row) => (
              <li key={row.line} className="grid grid-cols-[4rem_minmax(0,1fr)] gap-3 py-2">
                <span className="text-soft">line {row.line}</span>
                {row.command ? (
                  <span>
                    {row.command.name}, {row.command.producer}, {row.command.country}: {row.command.sacks} sacks,{' '}
                    {show.mass(row.command.netG * 1000)} at {show.priceIn(row.command.pricePerKg, row.command.currency)}
                    {row.at !== null && `, ${row.at.slice(0, 10)}`}
                  </span>
                ) : (
                  <span className="font-semibold text-crimson">
                    {row.problems.map(({ field, message }) => `${nameOf(field)} ${message}`).join('; ')}
                  </span>
                )}
              </li>
            ))}
          </ol>
          <button type="button" className="button button-main mt-4" disabled={busy || preview.bad > 0} onClick={take}>
            Take {preview.good === 1 ? 'it' : `all ${preview.good}`} in
          </button>
          {preview.bad > 0 && (
            <p className="mt-1 text-sm text-soft">All rows or none: mend the table, or choose other columns.</p>
          )}
        </div>
      )}
    </div>
  );
}

const chosenIn = ({ mapping, unit, pricePer }: ImportPreview) => ({ mapping, unit, pricePer });

const nameOf = (field: ImportField): string => IMPORT_LABELS.find(({ name }) => name === field)?.label ?? field;
