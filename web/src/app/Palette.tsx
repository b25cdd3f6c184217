import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { STATION_NAMES, STATIONS } from '@wunsch/core/work/stations';
import { StationIcon } from '../parts/icons';
import { useApi } from '../parts/api';

const PAGES: { name: string; link: string }[] = [
  { name: 'The floor', link: '/' },
  { name: 'Batches', link: '/batches' },
  { name: 'Lots', link: '/lots' },
  { name: 'Store and pantry', link: '/store' },
  { name: 'Receive a lot', link: '/station/beans' },
  { name: 'Recipes', link: '/recipes' },
  { name: 'Ingredients: what they are made of', link: '/ingredients' },
  { name: 'Roast programs', link: '/roasting' },
  { name: 'Roast loads: compare', link: '/roasting/loads' },
  { name: 'Roast trials', link: '/roasting/trials' },
  { name: 'A guided tasting', link: '/tasting' },
  { name: 'Tastings', link: '/tastings' },
  { name: 'Blind sessions', link: '/sessions' },
  { name: 'Trials of anything', link: '/trials' },
  { name: 'Scores over time; samples to buy', link: '/over-time' },
  { name: 'What matters here', link: '/matters' },
  { name: 'Own words for taste', link: '/words' },
  { name: 'Bars of other makers', link: '/other-makers' },
  { name: 'Practise tempering', link: '/practise' },
  { name: 'Complaints and recalls', link: '/complaints' },
  { name: 'Roasters', link: '/roasting/roasters' },
  { name: 'Opening stock: what is there already', link: '/opening' },
  { name: 'Workshop: team, machines, routes, units', link: '/workshop' },
];

/** Any code, name, station or page, from the keyboard. */
export function Palette({ open, setOpen }: { open: boolean; setOpen: (open: boolean) => void }) {
  const [text, setText] = useState('');
  const navigate = useNavigate();
  const hits = useApi(open && text.trim() !== '' ? `/api/trace/search?q=${encodeURIComponent(text.trim())}` : null);
  const go = (link: string): void => {
    setOpen(false);
    setText('');
    void navigate(link);
  };
  const words = text.trim().toLowerCase();
  const fits = (name: string): boolean => words === '' || name.toLowerCase().includes(words);
  const item =
    'flex min-h-11 cursor-pointer items-center gap-3 rounded-md px-3 data-[selected=true]:bg-ink data-[selected=true]:text-on-ink';
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[10vh] left-1/2 z-50 w-[min(38rem,94vw)] -translate-x-1/2 rounded-xl bg-sheet p-3 shadow-2xl"
        >
          <Dialog.Title className="sr-only">Find any code or page</Dialog.Title>
          <Command shouldFilter={false} label="Find any code or page">
            <Command.Input
              value={text}
              onValueChange={setText}
              placeholder="Code on a bar, tub or sack; a name; what was noted; a page"
              className="entry text-lg"
              autoFocus
            />
            <Command.List className="mt-2 max-h-[60vh] overflow-y-auto">
              <Command.Empty className="px-3 py-4 text-soft">
                {hits.isLoading ? 'Looking …' : 'Nothing here carries that code, name or word.'}
              </Command.Empty>
              {(hits.data ?? []).map((hit) => (
                <Command.Item key={hit.link} value={hit.link} onSelect={() => go(hit.link)} className={item}>
                  <span className="code w-24">{hit.code}</span>
                  <span className="min-w-0 flex-1 truncate">{hit.name}</span>
                  <span className="max-w-[45%] truncate text-sm opacity-75">{hit.detail}</span>
                </Command.Item>
              ))}
              {STATIONS.filter((station) => fits(STATION_NAMES[station])).map((station) => (
                <Command.Item key={station} value={station} onSelect={() => go(`/station/${station}`)} className={item}>
                  <StationIcon station={station} size={20} />
                  <span className="flex-1">{STATION_NAMES[station]}</span>
                  <span className="text-sm opacity-75">{(STATIONS.indexOf(station) + 1) % 10}</span>
                </Command.Item>
              ))}
              {PAGES.filter(({ name }) => fits(name)).map(({ name, link }) => (
                <Command.Item key={link + name} value={name} onSelect={() => go(link)} className={item}>
                  {name}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
