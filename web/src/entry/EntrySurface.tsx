import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { MassUnit } from '@wunsch/core/units/mass';
import { isMass, massUnitOf, type FieldSpec, type Fields, type FieldState, type Problems } from './entry';
import { FieldView } from './FieldView';
import { Needed } from './Needed';
import { PadStand, usePadPlace } from './PadPlace';
import { addWeighing, otherUnit, padKey, tareWeighing, WeighPad, type PadTarget } from './WeighPad';

interface Props {
  specs: readonly FieldSpec[];
  fields: Fields;
  setField: (name: string, state: FieldState) => void;
  problems: Problems;
  suggestions?: Record<string, string>;
  massUnit: MassUnit;
  changeUnit: (unit: MassUnit) => void;
  /** Something was typed and is not saved: keys are the entry's own until it is. */
  begun: boolean;
  /** Above the fields: what goes in. */
  before?: ReactNode;
  /** What stands before is tall: on a wide screen the fields stand beside it. */
  beside?: boolean | undefined;
  /** Below the fields: the running sum, the refusal. */
  children: ReactNode;
  /** The save: stays in view. */
  foot: ReactNode;
  onSubmit: () => void;
}

const PADDED = new Set(['mass', 'masses', 'pieces', 'number', 'temp', 'price', 'series']);

/** Fields on the left, the pad on the right; `Enter` moves on, `Ctrl Enter` saves. */
export function EntrySurface({
  specs,
  fields,
  setField,
  problems,
  suggestions,
  massUnit,
  changeUnit,
  begun,
  before,
  beside = false,
  children,
  foot,
  onSubmit,
}: Props) {
  const padded = specs.filter(({ type }) => PADDED.has(type));
  const [active, setActive] = useState<string | null>(padded[0]?.name ?? null);
  const form = useRef<HTMLFormElement>(null);
  const place = usePadPlace(padded.length > 0);
  const split = beside && place.away && before != null;
  const stateOf = (spec: FieldSpec): FieldState =>
    isMass(spec)
      ? { text: '', unit: massUnitOf(spec, massUnit), ...fields[spec.name] }
      : (fields[spec.name] ?? { text: '' });
  const current = padded.find(({ name }) => name === active);
  const index = current ? padded.indexOf(current) : -1;
  const following = padded[index + 1];
  const target: PadTarget | null = current
    ? { spec: current, state: stateOf(current), change: (state) => setField(current.name, state) }
    : null;
  const unitOf = (spec: FieldSpec): (() => void) | null =>
    isMass(spec) && spec.unit === undefined ? () => changeUnit(otherUnit(massUnit)) : null;
  const latest = useRef({ target, begun });
  useEffect(() => {
    latest.current = { target, begun };
  });
  useEffect(() => {
    // While an entry is begun, digits go to the figure in hand wherever the focus is: they open no other station.
    const onKey = (event: KeyboardEvent): void => {
      const { target: hand, begun: on } = latest.current;
      if (!on || !hand || event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea, select, [role=dialog]')) return;
      const next = padKey(hand.state, event.key);
      if (next === null) return;
      event.preventDefault();
      hand.change(next);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <form
      ref={form}
      className={place.away ? '' : 'grid gap-x-6 gap-y-8 md:grid-cols-[minmax(0,1fr)_17rem] lg:gap-x-8'}
      noValidate
      onFocus={place.claim}
      data-begun={begun}
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
      onKeyDown={(event) => {
        if (event.altKey && target && isMass(target.spec)) {
          const act = { KeyA: addWeighing, KeyT: tareWeighing }[event.code];
          if (act) {
            event.preventDefault();
            const next = act(target.state);
            if (next) target.change(next);
          } else if (event.code === 'KeyU') {
            event.preventDefault();
            unitOf(target.spec)?.();
          }
          return;
        }
        if (
          event.key !== 'Enter' ||
          !(event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement)
        )
          return;
        if (event.ctrlKey || event.metaKey) return onSubmit();
        event.preventDefault();
        const inputs = [
          ...(form.current?.querySelectorAll<HTMLElement>('input, select, textarea, button[type=submit]') ?? []),
        ];
        inputs[inputs.indexOf(event.target) + 1]?.focus();
      }}
    >
      <div>
        <div className={split ? 'grid gap-x-8 lg:grid-cols-[minmax(0,1fr)_19rem]' : ''}>
          {before != null && <div>{before}</div>}
          <div>
            <div
              className={`grid grid-cols-2 gap-x-6 gap-y-4 ${split ? '' : place.away ? 'sm:grid-cols-3 xl:grid-cols-4' : 'xl:grid-cols-3'}`}
            >
              {specs.map((spec) => (
                <FieldView
                  key={spec.name}
                  spec={spec}
                  state={stateOf(spec)}
                  change={(state) => setField(spec.name, state)}
                  active={spec.name === active}
                  onActive={() => setActive(PADDED.has(spec.type) ? spec.name : null)}
                  problem={problems[spec.name]}
                  suggestion={suggestions?.[spec.name]}
                />
              ))}
            </div>
            {children}
          </div>
        </div>
        <div className="save-bar">
          {foot}
          {specs.some(({ optional }) => optional !== true) && (
            <span className="label ml-auto" aria-hidden>
              <Needed /> needed
            </span>
          )}
        </div>
      </div>
      <PadStand place={place}>
        <div
          className={place.away ? '' : 'hidden md:sticky md:top-40 md:block md:self-start'}
          // The figure that the pad fills has to be seen.
          onClick={() => form.current?.querySelector('[data-active=true]')?.scrollIntoView({ block: 'nearest' })}
        >
          <WeighPad
            target={target}
            unit={target ? unitOf(target.spec) : null}
            next={following ? () => setActive(following.name) : null}
          />
        </div>
      </PadStand>
    </form>
  );
}
