import { CaretDownIcon, CheckIcon } from '@phosphor-icons/react';
import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useId, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Labelled, problemOf } from './Labelled';

export type Option<T extends string = string> = readonly [value: T, label: string];

interface ChoiceProps<T extends string> {
  value: T;
  onChange: (value: T) => void;
  options: readonly Option<T>[];
  /** What stands there while the value is none of the options. */
  placeholder?: string | undefined;
  /** The name, where no label stands beside it. */
  label?: string | undefined;
  id?: string | undefined;
  className?: string | undefined;
  invalid?: boolean | undefined;
  describedBy?: string | undefined;
  onFocus?: (() => void) | undefined;
}

/** From so many on a list is found by typing. */
const SEARCHED_FROM = 9;

/** Values may be empty, which the list takes for none. */
const key = (value: string): string => `=${value}`;

const wordsOf = (text: string): string[] => text.toLocaleLowerCase().split(/[^\p{L}\p{N}%]+/u);

/** Every word that was typed stands somewhere in the text. */
export function fitsSearch(text: string, search: string): boolean {
  const lower = text.toLocaleLowerCase();
  return search
    .toLocaleLowerCase()
    .split(/\s+/)
    .every((word) => lower.includes(word));
}

/** What fits a search, in its order, but first what begins with it, then what has a word that does. */
export function optionsFound<T extends string>(options: readonly Option<T>[], search: string): Option<T>[] {
  const typed = search.trim().toLocaleLowerCase();
  if (typed === '') return [...options];
  const rank = (label: string): number =>
    label.toLocaleLowerCase().startsWith(typed) ? 0 : wordsOf(label).some((word) => word.startsWith(typed)) ? 1 : 2;
  return options
    .filter(([, label]) => fitsSearch(label, typed))
    .map((option) => ({ option, rank: rank(option[1]) }))
    .sort((a, b) => a.rank - b.rank)
    .map(({ option }) => option);
}

const isTouched = (): boolean => window.matchMedia('(pointer: coarse)').matches;

/** One of a list: long lists are found by typing. Arrows and letters open it, Enter and Tab take what is marked, Escape
 * leaves it as it was. */
export function Choice<T extends string>({
  value,
  onChange,
  options,
  placeholder = '–',
  label,
  id,
  className = '',
  invalid = false,
  describedBy,
  onFocus,
}: ChoiceProps<T>) {
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(key(value));
  const [search, setSearch] = useState('');
  const list = useRef<HTMLDivElement>(null);
  const typed = useRef<HTMLInputElement>(null);
  const listId = useId();
  const searched = options.length >= SEARCHED_FROM;
  const chosen = options.find(([option]) => option === value);

  const turn = (next: boolean, letters = ''): void => {
    if (next) {
      setAt(key(value));
      setSearch(searched ? letters : '');
    }
    setOpen(next);
  };

  /** In a short list a letter goes to the next option that begins with it. */
  const byLetter = (letter: string): void => {
    const from = options.findIndex(([option]) => key(option) === at) + 1;
    const next = [...options.slice(from), ...options.slice(0, from)].find(([, text]) =>
      text.toLocaleLowerCase().startsWith(letter.toLocaleLowerCase()),
    );
    if (next) setAt(key(next[0]));
  };

  const take = (option: T): void => {
    setOpen(false);
    if (option !== value) onChange(option);
  };

  const isLetter = (event: KeyboardEvent): boolean =>
    event.key.length === 1 && event.key !== ' ' && !event.ctrlKey && !event.metaKey && !event.altKey;

  return (
    <Popover.Root open={open} onOpenChange={(next) => turn(next)}>
      <Popover.Trigger
        id={id}
        type="button"
        role="combobox"
        aria-label={label}
        aria-haspopup="listbox"
        aria-expanded={open}
        aria-controls={open ? listId : undefined}
        aria-invalid={invalid}
        aria-describedby={describedBy}
        className={`entry choice ${className}`}
        onFocus={onFocus}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            event.preventDefault();
            turn(true);
          } else if (isLetter(event)) {
            event.preventDefault();
            event.stopPropagation();
            // Letters can come faster than the list takes the focus.
            if (open) setSearch((now) => now + event.key);
            else turn(true, event.key);
            if (!searched) byLetter(event.key);
          }
        }}
      >
        <span className={`min-w-0 flex-1 truncate ${chosen ? '' : 'text-soft'}`}>{chosen?.[1] ?? placeholder}</span>
        <CaretDownIcon size={16} className="shrink-0 text-soft" aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="choice-list"
          onOpenAutoFocus={(event) => {
            // By itself it would mark what stands there, and the next letter would replace the first.
            event.preventDefault();
            (searched && !isTouched() ? typed : list).current?.focus();
          }}
        >
          <Command
            ref={list}
            label={label ?? 'Choose'}
            loop
            vimBindings={false}
            shouldFilter={false}
            value={at}
            onValueChange={setAt}
            className="flex min-h-0 flex-1 flex-col outline-none"
            onKeyDown={(event) => {
              event.stopPropagation();
              const here = options.find(([option]) => key(option) === at);
              if (event.key === 'Tab' && here) {
                event.preventDefault();
                take(here[0]);
              }
              if (!searched && isLetter(event)) byLetter(event.key);
            }}
          >
            {searched && (
              <Command.Input
                ref={typed}
                value={search}
                onValueChange={setSearch}
                placeholder="type to find"
                className="entry mb-1 shrink-0"
              />
            )}
            <Command.List id={listId} label={label ?? 'Choose'} className="min-h-0 flex-1 overflow-y-auto">
              {optionsFound(options, search).map(([option, text]) => (
                <Command.Item
                  key={option}
                  value={key(option)}
                  data-choice={option}
                  className="choice-item"
                  onSelect={() => take(option)}
                >
                  <CheckIcon size={16} className={option === value ? '' : 'invisible'} aria-hidden />
                  <span className="min-w-0 flex-1">{text}</span>
                </Command.Item>
              ))}
              <Command.Empty className="p-3 text-soft">None is called that.</Command.Empty>
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** One of a list, with its name above. */
export function SelectBox<T extends string>({
  label,
  hint,
  problem,
  className,
  ...choice
}: Omit<ChoiceProps<T>, 'label' | 'id' | 'invalid' | 'describedBy'> & {
  label: ReactNode;
  hint?: ReactNode;
  problem?: string | undefined;
}) {
  const id = useId();
  return (
    <Labelled id={id} label={label} hint={hint} problem={problem} className={className}>
      <Choice {...choice} id={id} invalid={problem !== undefined} describedBy={problemOf(id, problem)} />
    </Labelled>
  );
}
