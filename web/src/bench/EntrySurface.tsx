import { useRef, useState, type ReactNode } from 'react';
import type { FieldSpec, Fields, FieldState, Problems } from './entry';
import { FieldView } from './FieldView';
import { WeighPad } from './WeighPad';

interface Props {
  specs: readonly FieldSpec[];
  fields: Fields;
  setField: (name: string, state: FieldState) => void;
  problems: Problems;
  suggestions?: Record<string, string>;
  massUnit: 'g' | 'oz' | 'kg' | 'lb';
  /** Above the fields: what goes in. */
  before?: ReactNode;
  /** Below the fields: the running sum, the refusal, the save. */
  children: ReactNode;
  onSubmit: () => void;
}

const PADDED = new Set(['mass', 'masses', 'pieces', 'number', 'temp']);

/** Fields on the left, the pad on the right; `Enter` moves on, `Ctrl Enter` saves. */
export function EntrySurface({
  specs,
  fields,
  setField,
  problems,
  suggestions,
  massUnit,
  before,
  children,
  onSubmit,
}: Props) {
  const padded = specs.filter(({ type }) => PADDED.has(type));
  const [active, setActive] = useState<string | null>(padded[0]?.name ?? null);
  const form = useRef<HTMLFormElement>(null);
  const stateOf = (spec: FieldSpec): FieldState =>
    fields[spec.name] ?? { text: '', ...(spec.type === 'mass' || spec.type === 'masses' ? { unit: massUnit } : {}) };
  const current = padded.find(({ name }) => name === active);
  const index = current ? padded.indexOf(current) : -1;
  const following = padded[index + 1];
  return (
    <form
      ref={form}
      className="grid gap-x-6 gap-y-8 md:grid-cols-[minmax(0,1fr)_17rem] lg:gap-x-8 lg:grid-cols-[minmax(0,1fr)_19rem]"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
      onKeyDown={(event) => {
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
        {before}
        <div className="grid grid-cols-2 gap-x-6 gap-y-4 xl:grid-cols-3">
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
      <aside className="order-first md:order-none md:sticky md:top-40 md:self-start">
        <WeighPad
          target={
            current
              ? { spec: current, state: stateOf(current), change: (state) => setField(current.name, state) }
              : null
          }
          next={following ? () => setActive(following.name) : null}
        />
      </aside>
    </form>
  );
}
