import { useId } from 'react';
import { PileIcon } from '../parts/drawings';
import { useHere, useShow } from '../parts/workshop';
import { COUNTRIES } from '../parts/countries';
import { fieldG, isMass, usualWords, type FieldSpec, type FieldState } from './entry';
import { Needed } from './Needed';
import { Choice } from '../parts/choice';
import { TypedDay } from '../parts/dates';

/** Whether a figure was typed with its unit or with thousands apart: then it is said back how it was understood. */
const isSpelled = (text: string): boolean => /[a-z]|\d[\s.,'’]\d{3}\b/i.test(text);

interface Props {
  spec: FieldSpec;
  state: FieldState;
  change: (state: FieldState) => void;
  active: boolean;
  onActive: () => void;
  problem?: string | undefined;
  /** A shade of what is usual, shown while empty. */
  suggestion?: string | undefined;
}

/** One figure to fill: by the pad, or by a real keyboard. */
export function FieldView({ spec, state, change, active, onActive, problem, suggestion }: Props) {
  const id = useId();
  const { temperatureUnit } = useHere().view.settings;
  const show = useShow();
  const described = problem === undefined ? undefined : `${id}-problem`;
  const label = (
    <label htmlFor={id} className={`label ${spec.optional === true ? '' : 'font-semibold text-ink!'}`}>
      {spec.optional !== true && <Needed />}
      {spec.label}
    </label>
  );
  const wrong = problem !== undefined && (
    <div id={described} className="mt-1 text-sm font-semibold text-crimson">
      {problem}
    </div>
  );
  if (spec.type === 'choice') {
    return (
      <fieldset className="col-span-full">
        <legend className="label mb-1">
          {spec.optional !== true && <Needed />}
          {spec.label}
        </legend>
        <div className="flex flex-wrap gap-2">
          {spec.choices?.map(({ value, label: word }) => (
            <button
              key={value}
              type="button"
              className="chip"
              aria-pressed={state.text === value}
              onClick={() => change({ text: value })}
            >
              {word}
            </button>
          ))}
        </div>
        {wrong}
      </fieldset>
    );
  }
  if (spec.type === 'list') {
    const list = spec.list ?? COUNTRIES;
    return (
      <div>
        {label}
        <Choice
          id={id}
          value={state.text}
          options={[
            ...(spec.optional === true || state.text === '' ? [['', '–'] as const] : []),
            ...(state.text === '' || list.includes(state.text) ? list : [state.text, ...list]).map(
              (name) => [name, name] as const,
            ),
          ]}
          invalid={problem !== undefined}
          describedBy={described}
          onFocus={onActive}
          onChange={(text) => change({ text })}
        />
        {wrong}
      </div>
    );
  }
  if (spec.type === 'date') {
    return (
      <div>
        {label}
        <TypedDay
          id={id}
          value={state.text}
          onChange={(text) => change({ text })}
          invalid={problem !== undefined}
          describedBy={described}
          onFocus={onActive}
        />
        {spec.hint !== undefined && <div className="mt-1 text-sm text-soft">{spec.hint}</div>}
        {wrong}
      </div>
    );
  }
  if (spec.type === 'text' || spec.type === 'long' || spec.type === 'program') {
    const shared = {
      id,
      value: state.text,
      'aria-invalid': problem !== undefined,
      'aria-describedby': described,
      onFocus: onActive,
      placeholder: spec.hint ?? '',
      className: 'entry',
    };
    return (
      <div className={spec.name === 'note' || spec.type !== 'text' ? 'col-span-full' : ''}>
        {label}
        {spec.type === 'text' ? (
          <input
            {...shared}
            type="text"
            autoComplete="off"
            onChange={(event) => change({ text: event.target.value })}
          />
        ) : (
          <textarea
            {...shared}
            rows={spec.type === 'program' ? 4 : 3}
            onChange={(event) => change({ text: event.target.value })}
          />
        )}
        {wrong}
      </div>
    );
  }
  const mass = isMass(spec);
  const unit = mass
    ? (state.unit ?? 'g')
    : spec.type === 'temp'
      ? `°${temperatureUnit}`
      : spec.type === 'price'
        ? `a ${show.heavy}`
        : (spec.unit ?? '');
  const parts = state.parts ?? [];
  const sum = mass ? fieldG(state) : null;
  const usual = mass ? null : usualWords(spec, state.text, temperatureUnit);
  return (
    <div className="readout" data-active={active} data-wrong={problem !== undefined} onClick={onActive}>
      <span className="flex items-center gap-2">
        {spec.pile !== undefined && <PileIcon reason={spec.pile} size={28} />}
        {label}
      </span>
      <div className="flex items-baseline gap-2">
        <input
          id={id}
          inputMode={spec.type === 'series' ? 'text' : 'decimal'}
          autoComplete="off"
          value={state.text}
          placeholder={suggestion ?? '–'}
          aria-invalid={problem !== undefined}
          aria-required={spec.optional !== true}
          aria-describedby={described}
          aria-keyshortcuts={mass ? 'Alt+A Alt+T Alt+U' : undefined}
          onFocus={onActive}
          onChange={(event) => change({ ...state, text: event.target.value })}
        />
        <span className="text-soft">{unit}</span>
      </div>
      {mass && (parts.length > 0 || (state.tareG ?? 0) > 0) && (
        <div className="flex flex-wrap items-center gap-x-2 text-sm text-soft">
          {parts.map((part, index) => (
            <span key={index}>{show.mass(part * 1000)} +</span>
          ))}
          {(state.tareG ?? 0) > 0 && <span>tare {show.mass((state.tareG ?? 0) * 1000)}</span>}
          {sum !== null && <strong className="text-ink">= {show.mass(sum * 1000)}</strong>}
          <button type="button" className="link min-h-6" onClick={() => change({ text: '', unit: state.unit })}>
            begin again
          </button>
        </div>
      )}
      {mass && isSpelled(state.text) && sum !== null && parts.length === 0 && (
        <div className="text-sm font-semibold" aria-live="polite">
          = {show.mass(sum * 1000)}
        </div>
      )}
      {spec.hint !== undefined && <div className="text-sm text-soft">{spec.hint}</div>}
      {usual !== null && problem === undefined && (
        <div className="text-sm font-semibold" aria-live="polite">
          {usual}
        </div>
      )}
      {wrong}
    </div>
  );
}
