import { useState } from 'react';
import { MARKETS, type Market } from '@wunsch/core/pack/label';
import type { Problem } from '@wunsch/core/api/types';
import { ApiError, ask, useApi } from '../parts/api';
import { SelectBox } from '../parts/choice';
import { useKept } from '../parts/draft';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Caution, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';
import { LabelWords } from './LabelWords';

const MARKET_WORDS: Readonly<Record<Market, string>> = { en: 'English', de: 'German', fr: 'French', es: 'Spanish' };
const KEY = 'wunsch.label';

interface Kept {
  market: Market;
  widthMm: string;
  heightMm: string;
  sheet: 'yes' | 'no';
}
const USUAL: Kept = { market: 'en', widthMm: '70', heightMm: '60', sheet: 'yes' };

function kept(): Kept {
  try {
    return { ...USUAL, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Kept>) };
  } catch {
    return USUAL;
  }
}

function saveAs(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  // The download has begun by then.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** The label of packed goods, from what they really are: to look at, and to print. */
export function LabelPanel({ code }: { code: string }) {
  const [how, setHow] = useState(kept);
  const [declared, setDeclared] = useKept(`label.${code}.declared`, '');
  const [net, setNet] = useKept(`label.${code}.net`, '');
  const [copies, setCopies] = useState('1');
  const set = (next: Partial<Kept>): void => {
    const all = { ...how, ...next };
    localStorage.setItem(KEY, JSON.stringify(all));
    setHow(all);
  };
  const figures = { declaredPct: declared, netG: net };
  const asked = new URLSearchParams({ market: how.market });
  for (const [name, text] of Object.entries(figures)) {
    const value = readNumber(text);
    if (value !== null) asked.set(name, String(value));
  }
  const path = `/api/pack/labels/${encodeURIComponent(code)}` as const;
  const { data, error } = useApi(`${path}?${asked.toString()}`);
  const print = new URLSearchParams(asked);
  const sizes = { widthMm: how.widthMm, heightMm: how.heightMm, copies };
  const unread = Object.entries({ ...figures, ...sizes }).some(
    ([, text]) => text.trim() !== '' && readNumber(text) === null,
  );
  for (const [name, text] of Object.entries(sizes)) print.set(name, String(readNumber(text) ?? text));
  print.set('sheet', how.sheet);
  const { personId } = useHere();
  const { busy, error: failed, run, fail } = useSave();
  const [printed, setPrinted] = useState<string | null>(null);
  const toPrinter = async (): Promise<void> => {
    if (personId === null) return fail(NOBODY);
    setPrinted(null);
    const [widthMm, heightMm, count_] = [how.widthMm, how.heightMm, copies].map((text) => readNumber(text) ?? NaN);
    await run(async () => {
      const body = { personId, code, market: how.market, copies: count_, widthMm, heightMm };
      const job = await ask('/api/pack/print', body);
      setPrinted(
        `${job.copies} ${job.copies === 1 ? 'label' : 'labels'} ${job.state === 'printed' ? 'printed' : 'wait: the printer is out of labels'} (simulated printer).`,
      );
    });
  };
  const asPicture = (): Promise<boolean> =>
    run(async () => {
      const one = new URLSearchParams(print);
      one.set('sheet', 'no');
      one.set('copies', '1');
      const answer = await fetch(`${path}/label.pdf?${one.toString()}`);
      if (!answer.ok) throw new ApiError((await answer.json()) as Problem);
      // The reader of PDF files is large: it is loaded when somebody wants a picture.
      const { firstPagePng } = await import('./pdf-image');
      saveAs(await firstPagePng(await answer.arrayBuffer()), `label-${code}.png`);
    });
  return (
    <Section id="label" title="Label">
      <div className="grid gap-6 md:grid-cols-[minmax(0,20rem)_minmax(0,1fr)]">
        <div className="self-start rounded-md border border-rule bg-sheet p-3 text-sm" aria-live="polite">
          {data ? (
            <>
              <p className="text-xl font-semibold">{data.name}</p>
              {data.cocoa !== null && <p className="font-semibold">{data.cocoa}</p>}
              <p className="mt-1">
                {data.ingredients.map((run, index) =>
                  run.strong ? <strong key={index}>{run.text}</strong> : <span key={index}>{run.text}</span>,
                )}
              </p>
              {data.mayContain.length > 0 && (
                <p>
                  {data.words.may}: <strong>{data.mayContain.join(', ')}</strong>.
                </p>
              )}
              {data.origin !== null && (
                <p>
                  {data.words.origin} {data.origin}.
                </p>
              )}
              <p className="mt-1 font-semibold">
                {[
                  data.net === null ? null : `${data.words.net}: ${data.net}`,
                  data.bestBefore === null ? null : `${data.words.best}: ${data.bestBefore}`,
                  `${data.words.batch}: ${data.batch}`,
                ]
                  .filter((fact) => fact !== null)
                  .join('   ')}
              </p>
              <p className="mt-1 text-soft">
                {data.words.nutrition}: {data.nutrition.map(([name, value]) => `${name} ${value}`).join('; ')}.
              </p>
            </>
          ) : (
            <Refusal error={error} kept={false} />
          )}
        </div>
        <div>
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
            <SelectBox
              label="Language"
              value={how.market}
              options={MARKETS.map((market) => [market, MARKET_WORDS[market]] as const)}
              onChange={(market) => set({ market: market })}
            />
            <NumberBox label="Declare cocoa" unit="%" value={declared} onChange={setDeclared} placeholder="true one" />
            <NumberBox label="Declare net" unit="g" value={net} onChange={setNet} placeholder="mean" />
            <NumberBox label="Labels" value={copies} onChange={setCopies} />
            <NumberBox label="Wide" unit="mm" value={how.widthMm} onChange={(widthMm) => set({ widthMm })} />
            <NumberBox label="High" unit="mm" value={how.heightMm} onChange={(heightMm) => set({ heightMm })} />
            <SelectBox
              className="col-span-2"
              label="On"
              value={how.sheet}
              options={[
                ['yes', 'A4 sheets, as many as fit'],
                ['no', 'one a page, for a label printer'],
              ]}
              onChange={(own) => set({ sheet: own })}
            />
          </div>
          {data && !unread && (
            <div className="mt-3 flex flex-wrap gap-3">
              <a
                className="button button-main"
                href={`${path}/label.pdf?${print.toString()}`}
                target="_blank"
                rel="noreferrer"
              >
                Labels as PDF
              </a>
              <button type="button" className="button" disabled={busy} onClick={() => void asPicture()}>
                One as PNG
              </button>
              <button type="button" className="button" disabled={busy} onClick={() => void toPrinter()}>
                To the label printer
              </button>
              {printed !== null && (
                <p role="status" className="self-center text-sm">
                  {printed}
                </p>
              )}
            </div>
          )}
          <Refusal error={failed} kept={false} />
          {data && data.checks.length > 0 && (
            <ul className="mt-3 text-sm">
              {data.checks.map((words) => (
                <li key={words} className="border-l-4 border-ripe py-0.5 pl-3">
                  {words}
                </li>
              ))}
            </ul>
          )}
          <LabelWords market={how.market} />
          {data && (
            <details className="mt-1">
              <summary className="inline-flex min-h-11 cursor-pointer items-center text-sm underline">
                What the law of a place may ask
              </summary>
              <ul className="list-disc pl-5 text-sm">
                {data.checkList.map((words) => (
                  <li key={words}>{words}</li>
                ))}
              </ul>
            </details>
          )}
          <div className="mt-3">
            <Caution>
              Local codes decide what a label has to say. The nutrition is an estimate from usual compositions.
            </Caution>
          </div>
        </div>
      </div>
    </Section>
  );
}
