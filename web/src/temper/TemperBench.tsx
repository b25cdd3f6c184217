import { useState } from 'react';
import { Link } from 'react-router';
import type { BenchView } from '@wunsch/core/api/types';
import type { LearnedView } from '@wunsch/core/api/temper';
import type { Composition } from '@wunsch/core/composition/composition';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { seed, silk, slab, steelBowl } from '@wunsch/core/temper/sums';
import { windowsOf, type Span, type Windows } from '@wunsch/core/temper/windows';
import { WorkBench } from '../entry/WorkBench';
import { useApi } from '../parts/api';
import { Chips, NumberBox, SelectBox } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { useShow } from '../parts/workshop';
import { LastPours } from './LastPours';
import { LivePour } from './LivePour';
import { TestClock } from './TestClock';

/** What waits to be tempered, with its windows and the arithmetic of each school. */
export function TemperBench({ view }: { view: BenchView }) {
  return (
    <>
      <Plan view={view} />
      <WorkBench view={view} follow={(work, write) => <LivePour work={work} write={write} />} />
      <LastPours steps={view.recent.filter(({ kind, withdrawn }) => kind === 'temper' && !withdrawn).slice(0, 3)} />
    </>
  );
}

const SCHOOLS = [
  ['slab', 'Slab'],
  ['seed', 'Seed'],
  ['silk', 'Silk'],
  ['bath', 'Bath or ice'],
  ['bag', 'Bags in a bath'],
  ['machine', 'Machine'],
  ['none', 'Untempered'],
] as const;
type School = (typeof SCHOOLS)[number][0];

function Plan({ view }: { view: BenchView }) {
  const show = useShow();
  const [open, setOpen] = useState(false);
  const [code, setCode] = useState('');
  const rows = [
    ...view.works.map((work) => ({ code: work.sources[0]?.code ?? '', massMg: work.massMg })),
    ...view.waiting.map(({ code: own, freeMg }) => ({ code: own, massMg: freeMg })),
  ].filter((row) => row.code !== '' && row.massMg > 0);
  const row = rows.find((own) => own.code === code) ?? rows[0];
  const { data } = useApi<Composition>(row ? `/api/trace/compositions/${encodeURIComponent(row.code)}` : null);
  const learned = useApi<LearnedView>(row ? `/api/temper/learned/${encodeURIComponent(row.code)}` : null).data;
  if (!row || !data) return null;
  const { figures } = data;
  const own = windowsOf({
    cocoaButterPct: figures.cocoaButterPct,
    milkFatPct: figures.milkFatPct,
    otherFatPct: figures.otherFatPct,
    dryCocoaPct: figures.dryCocoaPct,
    milkPct: figures.milkPct,
  });
  const span = ({ from, to }: Span): string => `${typedNumber(show.tempIn(from))} to ${show.temp(to)}`;
  return (
    <section aria-label="Windows" className="mb-5 rounded-md bg-sunk px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <p className="min-w-0 flex-1">
          <span className="code">{row.code}</span>: <strong>melt {span(own.windows.melt)}</strong>, cool{' '}
          <strong>{span(own.windows.cool)}</strong>, work <strong>{span(own.windows.work)}</strong>.{' '}
          <span className="text-sm text-soft">
            {own.because} {learned?.settings[0]?.sentence ?? ''}
          </span>
        </p>
        <button type="button" className="button" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close' : 'Work it out'}
        </button>
        <TestClock />
        <Link className="button button-quiet" to="/practise">
          Practise
        </Link>
      </div>
      {open && (
        <Sums
          key={row.code}
          massG={row.massMg / 1000}
          windows={own.windows}
          fatShare={figures.fatPct / 100}
          softShare={figures.fatPct > 0 ? (figures.milkFatPct + figures.otherFatPct) / figures.fatPct : 0}
          choose={
            rows.length > 1 ? (
              <SelectBox
                className="w-44"
                label="Which"
                value={row.code}
                options={rows.map((one) => [one.code, `${one.code}, ${show.mass(one.massMg)}`] as const)}
                onChange={setCode}
              />
            ) : null
          }
        />
      )}
    </section>
  );
}

interface SumsProps {
  massG: number;
  windows: Windows;
  fatShare: number;
  softShare: number;
  choose: React.ReactNode;
}

/** The arithmetic of a school for this bowl; every figure can be typed over. */
function Sums({ massG, windows, fatShare, softShare, choose }: SumsProps) {
  const show = useShow();
  const [school, setSchool] = useState<School>('slab');
  const workC = (windows.work.from + windows.work.to) / 2;
  const degrees = (c: number): string => typedNumber(Math.round(10 * show.tempIn(c)) / 10);
  const [typed, setTyped] = useState({
    warm: degrees(40),
    cold: degrees(windows.cool.from),
    wanted: degrees(workC),
    bowl: '0',
    seed: degrees(20),
    melts: '70',
  });
  const set = (key: keyof typeof typed) => (text: string) => setTyped((now) => ({ ...now, [key]: text }));
  const celsius = (text: string): number => {
    const value = readNumber(text);
    return value === null ? NaN : show.tempOut(value);
  };
  const mass = (g: number): string => show.mass(Math.round(10 * g) * 100);
  const said = (): string[] => {
    switch (school) {
      case 'slab': {
        const found = slab(
          massG,
          celsius(typed.warm),
          celsius(typed.cold),
          celsius(typed.wanted),
          steelBowl(readNumber(typed.bowl) ?? 0, celsius(typed.warm)),
        );
        return [
          `Keep ${mass(found.warmG)} warm (${Math.round(100 * found.share)} %), spread ${mass(found.spreadG)}.`,
          `Work the spread part to ${show.temp(celsius(typed.cold))}, scrape it back, stir: together ${show.temp(celsius(typed.wanted))}.`,
        ];
      }
      case 'seed': {
        const found = seed(
          massG,
          celsius(typed.warm),
          celsius(typed.wanted),
          celsius(typed.seed),
          fatShare,
          (readNumber(typed.melts) ?? 70) / 100,
        );
        return [
          `${mass(found.seedG)} of seed, in thirds: ${found.thirdsG.map(mass).join(', ')}.`,
          'Stir each in until it is gone; the last third may leave some to fish out.',
        ];
      }
      case 'silk': {
        const found = silk(massG, softShare);
        return [
          `${mass(found.silkG)} of silk (${found.pct} %) at ${show.temp(found.atC)}, stirred in; then down to ${show.temp(workC)}.`,
          'No low point is needed. Silk is cocoa butter held at 33 to 34 °C until it is a paste.',
        ];
      }
      case 'bath':
        return [
          `Stir over cold water down to ${show.temp(windows.cool.from)} to ${show.temp(windows.cool.to)}, some minutes there, then over warm water to ${show.temp(workC)}.`,
          'Wipe the bowl before it is tilted: a drop of water seizes it.',
        ];
      case 'bag':
        return [
          `A sealed bag in water of ${show.temp(workC)}, after cooling to ${show.temp(windows.cool.from)}: knead it all the time.`,
          'Hard to stir, so it often fails: test it before it is poured.',
        ];
      case 'machine':
        return [
          `Melt ${show.temp(windows.melt.from)}, cool ${show.temp(windows.cool.to)}, work ${show.temp(workC)}: then by the temper test, half a degree at a time.`,
        ];
      case 'none':
        return [
          'Coarse tablets and couverture sold by weight need none: they will bloom, and that is said to who buys them.',
        ];
    }
  };
  let words: string[];
  let refused: string | null = null;
  try {
    words = said();
  } catch (reason) {
    if (!(reason instanceof DomainError)) throw reason;
    refused = reason.message;
    words = [];
  }
  const unit = show.temp(0).replace(/^[\d.\s]+/, '');
  return (
    <div className="mt-3 grid gap-3">
      <div className="flex flex-wrap items-end gap-4">
        {choose}
        <Chips legend="School" options={SCHOOLS} chosen={[school]} choose={([next]) => setSchool(next ?? 'slab')} />
      </div>
      {(school === 'slab' || school === 'seed') && (
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
          <NumberBox
            label={school === 'slab' ? 'Kept warm' : 'It is at'}
            unit={unit}
            value={typed.warm}
            onChange={set('warm')}
          />
          {school === 'slab' && (
            <NumberBox label="Back from the slab" unit={unit} value={typed.cold} onChange={set('cold')} />
          )}
          <NumberBox label="Meant to be" unit={unit} value={typed.wanted} onChange={set('wanted')} />
          {school === 'slab' && <NumberBox label="Bowl of steel" unit="kg" value={typed.bowl} onChange={set('bowl')} />}
          {school === 'seed' && <NumberBox label="Seed is at" unit={unit} value={typed.seed} onChange={set('seed')} />}
          {school === 'seed' && <NumberBox label="Of it melts" unit="%" value={typed.melts} onChange={set('melts')} />}
        </div>
      )}
      {refused !== null ? (
        <p className="font-semibold text-crimson" role="status">
          {refused}
        </p>
      ) : (
        <div aria-live="polite">
          {words.map((sentence, index) => (
            <p key={sentence} className={index === 0 ? 'figure text-xl' : 'text-sm'}>
              {sentence}
            </p>
          ))}
        </div>
      )}
    </div>
  );
}
