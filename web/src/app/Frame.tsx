import { MagnifyingGlassIcon, MoonIcon, SunIcon } from '@phosphor-icons/react';
import { Popover } from 'radix-ui';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, Outlet, useLocation } from 'react-router';
import { Asking } from '../parts/asking';
import { refresh, useApi } from '../parts/api';
import { Loading, Refusal } from '../parts/pieces';
import { setDecimalMark } from '../parts/number';
import { HereContext, useHere } from '../parts/workshop';
import { FloorStream } from '../stream/FloorStream';
import { DueLine } from './DueLine';
import { useKeys } from './keys';
import { useScanner } from './scanner';
import { KeyHelp } from './KeyHelp';
import { Palette } from './Palette';
import { useTheme } from './theme';

const PERSON = 'wunsch.person';

/** Tells every open screen when something was saved anywhere. */
function useLive(): void {
  useEffect(() => {
    const source = new EventSource('/api/events');
    let seen: number | null = null;
    source.onmessage = (event: MessageEvent<string>) => {
      const { version } = JSON.parse(event.data) as { version: number };
      if (seen !== null && version !== seen) void refresh();
      seen = version;
    };
    return () => source.close();
  }, []);
}

export function Frame() {
  const workshop = useApi('/api/workshop');
  const [personId, setPersonId] = useState<string | null>(() => localStorage.getItem(PERSON));
  useLive();
  const choosePerson = useCallback((id: string) => {
    localStorage.setItem(PERSON, id);
    setPersonId(id);
  }, []);
  const view = workshop.data;
  if (view) setDecimalMark(view.settings.decimalMark);
  const active = view?.people.filter((person) => person.active) ?? [];
  // One person alone need not be chosen.
  const chosen = active.find(({ id }) => id === personId)?.id ?? (active.length === 1 ? (active[0]?.id ?? null) : null);
  const here = useMemo(() => (view ? { view, personId: chosen, choosePerson } : null), [view, chosen, choosePerson]);
  if (!here) {
    return (
      <main className="mx-auto max-w-xl p-6">{workshop.error ? <Refusal error={workshop.error} /> : <Loading />}</main>
    );
  }
  return (
    <HereContext value={here}>
      <Shell />
    </HereContext>
  );
}

function Shell() {
  const { pathname } = useLocation();
  const floor = useApi('/api/ledger/floor');
  const [palette, setPalette] = useState(false);
  const [help, setHelp] = useState(false);
  const { theme, turn } = useTheme();
  const { settings, troubles } = useHere().view;
  const { key: place } = useLocation();
  const [missed, setMissed] = useState<{ code: string; place: string } | null>(null);
  useScanner(useCallback((code) => setMissed({ code, place }), [place]));
  // Said until one goes elsewhere.
  const unknown = missed?.place === place ? missed.code : null;
  useKeys({ openPalette: () => setPalette(true), openHelp: () => setHelp(true), turnTheme: turn });
  useEffect(() => {
    document.title = settings.name === '' ? 'Wunsch' : `Wunsch · ${settings.name}`;
  }, [settings.name]);
  const onFloor = pathname === '/';
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#subject" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-3">
        To the subject
      </a>
      <header className="sticky top-0 z-20 bg-paper print:hidden">
        <div className="mx-auto flex max-w-[1360px] items-center gap-2 px-3 pt-2 sm:px-6 lg:gap-4">
          <Link to="/" className="figure text-[1.7rem] font-bold! tracking-tight" aria-label="Wunsch, the floor">
            Wunsch
          </Link>
          <span className="hidden truncate text-sm text-soft lg:block">{settings.name}</span>
          <span className="flex-1" />
          <nav aria-label="Pages" className="hidden items-center text-[0.95rem] md:flex lg:gap-1">
            {PAGES.map(([to, name]) => (
              <Link
                key={to}
                to={to}
                aria-current={pathname === to ? 'page' : undefined}
                className="inline-flex min-h-11 items-center rounded-md px-1.5 underline-offset-4 lg:px-2.5 hover:underline aria-[current=page]:font-bold aria-[current=page]:underline"
              >
                {name}
              </Link>
            ))}
          </nav>
          <button
            type="button"
            className="button button-quiet no-underline!"
            onClick={() => setPalette(true)}
            aria-label="Find any code or page"
          >
            <MagnifyingGlassIcon size={22} aria-hidden />
            <span className="hidden text-sm lg:inline">Find</span>
          </button>
          <button
            type="button"
            className="button button-quiet"
            onClick={turn}
            aria-label={theme === 'night' ? 'Day theme' : 'Night theme'}
          >
            {theme === 'night' ? <SunIcon size={22} aria-hidden /> : <MoonIcon size={22} aria-hidden />}
          </button>
          <WhoIsHere />
        </div>
        {!onFloor && floor.data && (
          <div className="mx-auto max-w-[1360px] px-3 pt-1 sm:px-6">
            <FloorStream floor={floor.data} tall={false} />
          </div>
        )}
        {!onFloor && <div className="mt-1 h-px bg-rule" />}
      </header>
      <main
        id="subject"
        tabIndex={-1}
        className="mx-auto w-full max-w-[1360px] flex-1 px-3 pt-5 pb-28 outline-none sm:px-6"
      >
        {unknown !== null && (
          <p role="alert" className="mb-4 rounded-md bg-ripe-wash px-4 py-2">
            Nothing here carries the code that was scanned, {unknown}.
          </p>
        )}
        {troubles.map((words) => (
          <p key={words} role="alert" className="mb-4 rounded-md bg-crimson-wash px-4 py-2">
            {words}
          </p>
        ))}
        <Outlet />
      </main>
      <DueLine due={floor.data?.due} />
      <Palette open={palette} setOpen={setPalette} />
      <KeyHelp open={help} setOpen={setHelp} />
      <Asking />
    </div>
  );
}

const PAGES = [
  ['/batches', 'Batches'],
  ['/lots', 'Lots'],
  ['/recipes', 'Recipes'],
  ['/losses', 'Losses'],
  ['/store', 'Store'],
  ['/workshop', 'Workshop'],
] as const;

function WhoIsHere() {
  const { view, personId, choosePerson } = useHere();
  const [open, setOpen] = useState(false);
  const people = view.people.filter(({ active }) => active);
  const who = people.find(({ id }) => id === personId);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className="chip"
        aria-label={who ? `${who.name} is at the bench. Change` : 'Who is at the bench?'}
      >
        {who ? who.name : <span className="font-semibold text-crimson">Who is here?</span>}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          className="z-50 w-56 rounded-xl bg-sheet p-3 shadow-xl ring-1 ring-rule"
        >
          <p className="label mb-2">Who is at the bench?</p>
          <div className="grid gap-1">
            {people.map(({ id, name }) => (
              <button
                key={id}
                type="button"
                className="chip justify-start"
                aria-pressed={id === personId}
                onClick={() => {
                  choosePerson(id);
                  setOpen(false);
                }}
              >
                {name}
              </button>
            ))}
            <Link
              to="/workshop"
              className="link mt-1 inline-flex min-h-11 items-center text-sm"
              onClick={() => setOpen(false)}
            >
              {people.length === 0 ? 'Add the team first' : 'The team'}
            </Link>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
