import { CalendarBlankIcon } from '@phosphor-icons/react';
import { Popover } from 'radix-ui';
import { lazy, Suspense, useId, useState, type ReactNode } from 'react';
import { readDay, readMoment, sayTyped } from '@wunsch/core/units/typed-day';
import { Labelled, problemOf } from './Labelled';
import { useShow } from './workshop';

const Calendar = lazy(() => import('./Calendar'));

interface TypedProps {
  /** `2026-11-26`, with a time `2026-11-26T19:05`, or what was typed as long as it cannot be read. */
  value: string;
  onChange: (text: string) => void;
  id?: string | undefined;
  invalid?: boolean | undefined;
  describedBy?: string | undefined;
  onFocus?: (() => void) | undefined;
  onEnter?: (() => void) | undefined;
}

/** A day, or with `timed` a moment, of the workshop's calendar: typed as people write it, or taken from a calendar. */
export function TypedDay({
  value,
  onChange,
  id,
  timed = false,
  invalid = false,
  describedBy,
  onFocus,
  onEnter,
}: TypedProps & { timed?: boolean }) {
  const show = useShow();
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const hintId = useId();
  const [now, setNow] = useState(() => Date.now());
  const clock = (): string => show.clock(now);
  const understood = (text: string): string | null =>
    timed ? readMoment(text, clock()) : readDay(text, clock().slice(0, 10));
  const meant = typed === null ? null : understood(typed);
  const unread = value !== '' && typed === null && understood(value) === null;
  const put = (text: string): void => {
    setTyped(null);
    onChange(text);
  };
  return (
    <div>
      <div className="relative">
        <input
          id={id}
          type="text"
          className="entry pr-12!"
          autoComplete="off"
          placeholder={timed ? '26 Nov 19:05' : '26 Nov 2026'}
          value={typed ?? sayTyped(value)}
          aria-invalid={invalid || unread}
          aria-describedby={`${describedBy ?? ''} ${hintId}`.trim()}
          onFocus={() => {
            setNow(Date.now());
            onFocus?.();
          }}
          onBlur={() => setTyped(null)}
          onChange={({ target: { value: text } }) => {
            setTyped(text);
            onChange(understood(text) ?? text);
          }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || onEnter === undefined) return;
            event.preventDefault();
            setTyped(null);
            onEnter();
          }}
        />
        <Popover.Root
          open={open}
          onOpenChange={(next) => {
            setNow(Date.now());
            setOpen(next);
          }}
        >
          <Popover.Trigger
            type="button"
            aria-label="Calendar"
            className="absolute inset-y-0 right-0 grid w-11 place-items-center text-soft"
          >
            <CalendarBlankIcon size={20} aria-hidden />
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content align="end" sideOffset={4} collisionPadding={8} className="choice-list max-h-none!">
              <Suspense fallback={<div className="h-80 w-72" />}>
                <Calendar
                  day={(understood(value) ?? '').slice(0, 10)}
                  today={clock().slice(0, 10)}
                  choose={(day) => {
                    put(timed ? `${day}T${(understood(value) ?? clock()).slice(11, 16)}` : day);
                    setOpen(false);
                  }}
                />
              </Suspense>
              <div className="flex gap-2 border-t border-rule p-1 pt-2">
                <button
                  type="button"
                  className="chip"
                  onClick={() => put(show.clock(Date.now()).slice(0, timed ? 16 : 10))}
                >
                  {timed ? 'Now' : 'Today'}
                </button>
                <button type="button" className="chip" onClick={() => put('')}>
                  Empty
                </button>
              </div>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      </div>
      <div id={hintId} className="text-sm text-soft" aria-live="polite">
        {meant !== null && typed !== sayTyped(meant) && `= ${sayTyped(meant)}`}
        {unread && (
          <span className="font-semibold text-crimson">
            {timed ? 'Say a day and a time: 26 Nov 19:05, yesterday 6:30.' : 'Say a day: 26 Nov, 26/11/2026.'}
          </span>
        )}
      </div>
    </div>
  );
}

interface BoxProps extends Omit<TypedProps, 'id' | 'invalid' | 'describedBy'> {
  label: ReactNode;
  hint?: ReactNode;
  problem?: string | undefined;
  className?: string | undefined;
}

function TypedBox({ label, hint, problem, className, ...typed }: BoxProps & { timed?: boolean }) {
  const id = useId();
  return (
    <Labelled id={id} label={label} hint={hint} problem={problem} className={className}>
      <TypedDay {...typed} id={id} invalid={problem !== undefined} describedBy={problemOf(id, problem)} />
    </Labelled>
  );
}

/** A day with its name above. */
export const DayBox = (props: BoxProps) => <TypedBox {...props} />;

/** A moment, day and time, with its name above. */
export const MomentBox = (props: BoxProps) => <TypedBox {...props} timed />;

/** When it was, for what is written down later. */
export const When = (props: Pick<BoxProps, 'value' | 'onChange' | 'problem'>) => (
  <MomentBox label="When (empty: now)" {...props} />
);
