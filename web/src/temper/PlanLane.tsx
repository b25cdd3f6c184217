import { CheckIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import type { PourView } from '@wunsch/core/api/temper';
import { walkActs, type ActState } from '@wunsch/core/temper/plan';
import { SCHOOLS, SCHOOL_WORDS, type PourAct, type School } from '@wunsch/core/work/tempering';
import { hasDraft, useDraft } from '../parts/draft';
import { Box, Chips, NumberBox } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import type { Poured } from './usePour';

/** Of a room that nobody measured, °C. */
const USUAL_ROOM_C = 20;
/** Schools whose heat balance the room has a part in: what cools on its own, or how warm the seed is. */
const USES_ROOM: ReadonlySet<School> = new Set(['slab', 'seed']);
const SCHOOL_OPTIONS = SCHOOLS.map((school) => [school, SCHOOL_WORDS[school]] as const);

/** A pour's plan: its school, its acts one after the other, each with what is still missing; all of it can be typed over. */
export function PlanLane({ pour, act, chosen }: { pour: PourView; act: Poured; chosen: (school: School) => void }) {
  const show = useShow();
  const draftId = `plan.${pour.workId}`;
  const [editing, setEditing] = useState(() => hasDraft(draftId));
  const { school, acts } = pour.pour;
  const [bowl, setBowl] = useState(() => typedNumber(pour.pour.bowlKg ?? 0));
  const [room, setRoom] = useState(() =>
    typedNumber(Math.round(10 * show.fromCelsius(pour.pour.roomC ?? USUAL_ROOM_C)) / 10),
  );
  const [wrong, setWrong] = useState<string | undefined>();
  const workOut = (own: School): void => {
    const [bowlKg, roomRead] = [readNumber(bowl === '' ? '0' : bowl), readNumber(room)];
    setWrong(roomRead === null && room.trim() === '' ? 'is missing' : undefined);
    if (bowlKg === null || roomRead === null) return;
    chosen(own);
    void act.plan({ school: own, bowlKg, roomC: show.toCelsius(roomRead) });
  };
  const states = walkActs(acts, pour.readings, pour.nowS);
  if (editing)
    return (
      <EditActs
        draftId={draftId}
        acts={acts}
        busy={act.busy}
        save={async (next) => {
          const kept = school !== null && (await act.plan({ school, acts: next }));
          if (kept) setEditing(false);
          return kept;
        }}
        leave={() => setEditing(false)}
      />
    );
  return (
    <div>
      <Chips
        legend={school === null ? 'How is it tempered? The plan is worked out for this bowl' : 'School'}
        options={SCHOOL_OPTIONS}
        chosen={school === null ? [] : [school]}
        choose={([next]) => {
          if (next !== undefined) workOut(next);
        }}
      />
      <div className="mt-2 flex flex-wrap items-end gap-3">
        {(school === null || school === 'slab') && (
          <NumberBox
            className="w-36"
            label="Bowl of steel"
            unit="kg"
            value={bowl}
            onEnter={() => school !== null && workOut(school)}
            onChange={setBowl}
          />
        )}
        {(school === null || USES_ROOM.has(school)) && (
          <NumberBox
            className="w-36"
            label="Room"
            unit={show.tempUnit}
            value={room}
            problem={wrong}
            onEnter={() => school !== null && workOut(school)}
            onChange={setRoom}
          />
        )}
        {school !== null && USES_ROOM.has(school) && (
          <button type="button" className="button button-quiet" disabled={act.busy} onClick={() => workOut(school)}>
            Work it out again
          </button>
        )}
      </div>
      {acts.length > 0 && (
        <ol className="mt-2" aria-label="Plan">
          {acts.map((row, index) => (
            <Act
              key={row.id}
              act={row}
              state={states[index]}
              words={actWords(row, show)}
              busy={act.busy}
              setDone={(done) => void act.setDone(row.id, done)}
            />
          ))}
        </ol>
      )}
      {acts.length > 0 && (
        <button type="button" className="button button-quiet mt-1" onClick={() => setEditing(true)}>
          Change the plan
        </button>
      )}
      <Refusal error={act.error} />
    </div>
  );
}

/** `Spread on the slab and work it: 1,962 g, down to 27 °C`. */
export function actWords(act: PourAct, show: ReturnType<typeof useShow>): string {
  const parts = [
    act.grams === null ? '' : show.mass(Math.round(1000 * act.grams)),
    act.tempC === null ? '' : `${act.way === 'up' ? 'up' : 'down'} to ${show.temp(act.tempC)}`,
    act.minutes === null ? '' : `${act.minutes} min`,
  ].filter((part) => part !== '');
  return parts.length === 0 ? act.what : `${act.what}: ${parts.join(', ')}`;
}

function Act({
  act,
  state,
  words,
  busy,
  setDone,
}: {
  act: PourAct;
  state: ActState | undefined;
  words: string;
  busy: boolean;
  setDone: (done: boolean) => void;
}) {
  const isDone = state?.state === 'done';
  const isNow = state?.state === 'now';
  return (
    <li
      className={`flex min-h-11 items-center gap-3 border-l-4 py-1 pl-3 ${
        isNow ? 'border-leaf font-semibold' : 'border-rule'
      } ${isDone ? 'text-soft' : ''}`}
      aria-current={isNow ? 'step' : undefined}
    >
      <span className="min-w-0 flex-1">{words}</span>
      {(isNow || act.doneS !== null) && (
        <button
          type="button"
          className="button button-quiet"
          disabled={busy}
          onClick={() => setDone(act.doneS === null)}
        >
          {act.doneS === null ? 'Done' : 'Not after all'}
        </button>
      )}
      {isDone && <CheckIcon size={20} aria-label="done" className="flex-none text-leaf" />}
    </li>
  );
}

interface Typed {
  act: PourAct;
  what: string;
  tempC: string;
  minutes: string;
  grams: string;
}

/** Every figure and word of a plan, to be typed over. */
function EditActs({
  draftId,
  acts,
  busy,
  save,
  leave,
}: {
  draftId: string;
  acts: readonly PourAct[];
  busy: boolean;
  /** @returns whether it was kept */
  save: (acts: PourAct[]) => Promise<boolean>;
  leave: () => void;
}) {
  const show = useShow();
  const number = (value: number | null): string => (value === null ? '' : typedNumber(Math.round(10 * value) / 10));
  const draft = useDraft<Typed[]>(draftId, () =>
    acts.map((act) => ({
      act,
      what: act.what,
      tempC: act.tempC === null ? '' : number(show.fromCelsius(act.tempC)),
      minutes: number(act.minutes),
      grams: number(act.grams),
    })),
  );
  const [wrong, setWrong] = useState<string | null>(null);
  const unit = show.tempUnit;
  const rows = draft.value;
  const set = (index: number, next: Partial<Typed>): void =>
    draft.set((now) => now.map((row, i) => (i === index ? { ...row, ...next } : row)));
  const finish = (): void => {
    const read = rows.map(({ act, what, tempC, minutes, grams }) => {
      const figure = (text: string): number | null | undefined =>
        text.trim() === '' ? null : (readNumber(text) ?? undefined);
      const [t, m, g] = [figure(tempC), figure(minutes), figure(grams)];
      if (t === undefined || m === undefined || g === undefined || what.trim() === '') return null;
      return {
        ...act,
        what: what.trim(),
        tempC: t === null ? null : show.toCelsius(t),
        way: t === null ? null : (act.way ?? 'down'),
        minutes: m,
        grams: g,
      };
    });
    const at = read.indexOf(null);
    if (at >= 0) return setWrong(`Act ${at + 1} has no words, or a figure that is no number.`);
    void save(read.filter((row) => row !== null)).then((kept) => kept && draft.clear());
  };
  const add = (): void =>
    draft.set((now) => [
      ...now,
      {
        act: { id: `n${Date.now() % 1e9}`, what: '', way: null, tempC: null, minutes: null, grams: null, doneS: null },
        what: '',
        tempC: '',
        minutes: '',
        grams: '',
      },
    ]);
  return (
    <div role="group" aria-label="Change the plan">
      <ol className="grid gap-3">
        {rows.map((row, index) => (
          <li
            key={row.act.id}
            className="grid grid-cols-3 items-end gap-2 sm:grid-cols-[minmax(0,1fr)_6rem_5rem_6rem_auto]"
          >
            <Box
              className="col-span-3 sm:col-span-1"
              label={`Act ${index + 1}`}
              value={row.what}
              onChange={(what) => set(index, { what })}
            />
            <NumberBox label="To" unit={unit} value={row.tempC} onChange={(tempC) => set(index, { tempC })} />
            <NumberBox label="For" unit="min" value={row.minutes} onChange={(minutes) => set(index, { minutes })} />
            <NumberBox label="Grams" value={row.grams} onChange={(grams) => set(index, { grams })} />
            <button
              type="button"
              className="button button-quiet"
              onClick={() => draft.set((now) => now.filter((_, i) => i !== index))}
            >
              Leave out
            </button>
          </li>
        ))}
      </ol>
      {wrong !== null && (
        <p role="alert" className="mt-2 font-semibold text-crimson">
          {wrong}
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-3">
        <button type="button" className="button button-main" disabled={busy || rows.length === 0} onClick={finish}>
          Keep this plan
        </button>
        <button type="button" className="button" onClick={add}>
          Another act
        </button>
        <button
          type="button"
          className="button button-quiet"
          onClick={() => {
            draft.clear();
            leave();
          }}
        >
          As it was
        </button>
      </div>
    </div>
  );
}
