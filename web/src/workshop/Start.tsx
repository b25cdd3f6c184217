import { useState } from 'react';
import { Link } from 'react-router';
import { send } from '../parts/api';
import { useKept } from '../parts/draft';
import { Box } from '../parts/fields';
import { Refusal } from '../parts/pieces';
import { settingsHere } from '../parts/regions';
import { useSave } from '../parts/save';
import { useHere } from '../parts/workshop';
import { SelectBox } from '../parts/choice';

const WAYS = [
  [
    'Receive beans',
    'A name and a weight are enough; where they are from and what they cost can follow.',
    '/station/beans',
  ],
  ['Receive nibs', 'Roasted or raw: it is asked, and kept.', '/station/beans?show=receive'],
  ['Begin with bought chocolate', 'Buy it for the pantry; it goes straight to Temper.', '/store'],
  [
    'Enter what is there already',
    'Nibs, a running bowl, blocks, bars: dated, valued, one by one or as a table.',
    '/opening',
  ],
] as const;

/** The first minute: who is here and how they write; then the ways to begin. */
export function Start() {
  const { view } = useHere();
  return view.people.length === 0 ? <WhoAndWhere /> : <WaysToBegin />;
}

function WhoAndWhere() {
  const { view, choosePerson } = useHere();
  const [name, setName, forgetName] = useKept('begin.name', '');
  const [workshop, setWorkshop, forgetWorkshop] = useKept('begin.workshop', '');
  const [here, setHere] = useState(() =>
    settingsHere(navigator.language, Intl.DateTimeFormat().resolvedOptions().timeZone),
  );
  const { busy, error, run } = useSave();
  const begin = (): void =>
    void run(async () => {
      const { demo: _, earlierRates: _r, ...settings } = view.settings;
      const { data } = await send('POST', '/api/workshop/people', { name });
      choosePerson(data.id);
      await send('PUT', '/api/workshop/settings', {
        ...settings,
        ...here,
        ...(workshop.trim() === '' ? {} : { name: workshop }),
      });
      forgetName();
      forgetWorkshop();
    });
  const choice = <K extends keyof typeof here>(
    key: K,
    label: string,
    options: readonly (readonly [string, string])[],
  ) => (
    <SelectBox
      label={label}
      value={here[key]}
      options={options}
      onChange={(value) => setHere((now) => ({ ...now, [key]: value }))}
    />
  );
  const list = (of: 'timeZone' | 'currency', own: string) =>
    [...new Set([...Intl.supportedValuesOf(of), own])]
      .sort()
      .map((value) => [value, value.replaceAll('_', ' ')] as const);
  return (
    <section className="max-w-3xl" aria-label="Begin">
      <h1 className="text-4xl">Who is at the bench?</h1>
      <p className="mt-1 text-soft">One name is enough to begin: every entry carries one.</p>
      <form
        className="mt-5 grid gap-4 sm:grid-cols-2"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          begin();
        }}
      >
        <Box label="Your name" value={name} onChange={setName} />
        <Box label="Name of the workshop" value={workshop} onChange={setWorkshop} placeholder={view.settings.name} />
        {choice('timeZone', 'Time zone', list('timeZone', here.timeZone))}
        {choice('currency', 'Currency', list('currency', here.currency))}
        {choice('massSystem', 'Weights', [
          ['metric', 'g and kg'],
          ['imperial', 'oz and lb'],
        ])}
        {choice('decimalMark', 'Half a gram is written', [
          ['.', '0.5 g'],
          [',', '0,5 g'],
        ])}
        {choice('temperatureUnit', 'Temperatures', [
          ['C', '°C'],
          ['F', '°F'],
        ])}
        <div className="self-end">
          <button type="submit" className="button button-main min-w-40 text-lg" disabled={busy}>
            Begin
          </button>
        </div>
      </form>
      <p className="mt-3 text-sm text-soft">
        Proposed from this browser. All of it can be changed under Workshop.{' '}
        <Link to="/workshop" className="link">
          Or restore an export there
        </Link>
        , before anything else.
      </p>
      <Refusal error={error} />
    </section>
  );
}

function WaysToBegin() {
  return (
    <section className="mt-2" aria-label="Ways to begin">
      <h1 className="text-4xl">What is there to begin with?</h1>
      <ul className="rows mt-4 max-w-3xl">
        {WAYS.map(([title, text, link]) => (
          <li key={title}>
            <Link to={link} className="group grid min-h-[64px] content-center py-3">
              <span className="figure text-2xl underline-offset-4 group-hover:underline">{title}</span>
              <span className="text-soft">{text}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
