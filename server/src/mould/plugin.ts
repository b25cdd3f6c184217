import { changeMould } from './work';
import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import type { MouldingView, MouldsView, MouldView } from '@wunsch/core/api/mould';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { text } from '@wunsch/core/fields/fields';
import { planMoulds } from '@wunsch/core/mould/plan';
import { cabinet, mouldFacts } from '@wunsch/core/mould/records';
import { studyWeights, WEIGHT_SYSTEMS } from '@wunsch/core/mould/weights';
import { liveMould, nextOfFill, NEXT_WORDS, NO_MOULD, weights } from '@wunsch/core/work/moulding';
import type { Work } from '@wunsch/core/workshop/work';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';

const YEAR_MS = 365 * 86_400_000;

/** Moulds that are in use, as the newest word has them. */
export function mouldsView(views: Views): MouldsView {
  const moulds = new Map<string, MouldView>();
  let cabinet: MouldsView['cabinet'] = null;
  for (const { value, at } of views.workshop.records.of('mould')) {
    if (value.kind === 'cabinet') cabinet = { moulds: value.moulds, minutes: value.minutes };
    else if (value.kind === 'mould') {
      const { cleanedAt = null, cleanedHow = '' } = moulds.get(value.mouldId) ?? {};
      moulds.set(value.mouldId, { id: value.mouldId, ...value.facts, cleanedAt, cleanedHow });
    } else {
      const there = moulds.get(value.mouldId);
      if (there) moulds.set(value.mouldId, { ...there, cleanedAt: at, cleanedHow: value.how });
    }
  }
  return { moulds: [...moulds.values()].filter(({ retired }) => !retired), cabinet };
}

/** Moulds and the cabinet; moulding under way: what was filled when, what pieces weigh. */
export function mouldRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const workOf = (request: { params: unknown }): Work => {
    const work = workshop.works.get(param(request.params, 'id'));
    if (!work || work.station !== 'mould')
      throw new DomainError('http/not-found', 'That moulding is not under way any more, perhaps at another screen.');
    return work;
  };
  router.read('/api/mould/moulds', 'Moulds, and the place where they set', () => mouldsView(views));
  const facts = z.object({ personId: id, facts: mouldFacts });
  router.write('POST', '/api/mould/moulds', 'Add a mould', facts, ({ personId, facts: own }) => {
    workshop.addRecord('mould', { kind: 'mould', mouldId: nanoid(8), facts: own }, { personId });
    return mouldsView(views);
  });
  const known = (request: { params: unknown }): string => {
    const mouldId = param(request.params, 'id');
    if (!mouldsView(views).moulds.some((row) => row.id === mouldId))
      throw new DomainError('http/not-found', 'There is no such mould.');
    return mouldId;
  };
  router.write(
    'PUT',
    '/api/mould/moulds/:id',
    'Change a mould, or retire it',
    facts,
    ({ personId, facts: own }, request) => {
      workshop.addRecord('mould', { kind: 'mould', mouldId: known(request), facts: own }, { personId });
      return mouldsView(views);
    },
  );
  router.write(
    'POST',
    '/api/mould/moulds/:id/cleaned',
    'Say that a mould was cleaned and polished',
    z.object({ personId: id, how: text(200) }),
    ({ personId, how }, request) => {
      workshop.addRecord('mould', { kind: 'cleaned', mouldId: known(request), how }, { personId });
      return mouldsView(views);
    },
  );
  router.write(
    'POST',
    '/api/mould/cabinet',
    'Say how many moulds set at once, and how long',
    z.object({ personId: id, ...cabinet.shape }),
    ({ personId, ...said }) => {
      workshop.addRecord('mould', { kind: 'cabinet', ...said }, { personId });
      return mouldsView(views);
    },
  );
  router.read('/api/mould/works/:id', 'Moulding under way', (request): MouldingView => {
    const work = workOf(request);
    const [first] = work.sources;
    const since = workshop.now() - YEAR_MS;
    const name = first ? workshop.book.holding(first.holdingId).name : '';
    const piecesAYear = [...workshop.book.timeline].reduce((sum, step) => {
      if (step.kind !== 'mould' || step.at < since) return sum;
      const good = step.postings.find(({ holdingId, pieces }) => holdingId === step.slots['good'] && pieces > 0);
      return good && workshop.book.holding(good.holdingId ?? '').name.startsWith(name) ? sum + good.pieces : sum;
    }, 0);
    return {
      workId: work.id,
      live: work.mould ?? NO_MOULD,
      massG: work.sources.reduce((sum, { massMg }) => sum + massMg, 0) / 1000,
      perKgMilli: first ? workshop.valuation.perKgMilli(first.holdingId) : 0,
      piecesAYear,
      moulds: mouldsView(views),
    };
  });
  router.write(
    'POST',
    '/api/mould/works/:id/setup',
    'Say what moulding under way is filled into',
    z.extend(
      z.object({ personId: id }),
      z.pick(liveMould, { barG: true, mouldId: true, setMin: true, productId: true, shellSec: true }).shape,
    ),
    ({ personId, ...setup }, request) => {
      workshop.checkPerson(personId);
      return changeMould(workshop, workOf(request).id, (mould) => ({ ...mould, ...setup }));
    },
  );
  router.write(
    'POST',
    '/api/mould/works/:id/fills',
    'A group of moulds is filled: its clock begins',
    z.object({
      personId: id,
      moulds: z
        .number()
        .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(10_000, 'is too many')),
    }),
    ({ personId, moulds }, request) => {
      workshop.checkPerson(personId);
      return changeMould(workshop, workOf(request).id, (mould) => ({
        ...mould,
        fills: [
          ...mould.fills,
          {
            id: nanoid(6),
            at: workshop.now(),
            moulds,
            outAt: null,
            ...(mould.shellSec === null ? {} : { shell: { tippedAt: null, filledAt: null, closedAt: null } }),
          },
        ],
      }));
    },
  );
  router.write(
    'POST',
    '/api/mould/works/:id/fills/:fill/out',
    'A group of moulds is turned out, or not after all',
    z.object({ personId: id, out: z.boolean() }),
    ({ personId, out }, request) => {
      workshop.checkPerson(personId);
      const fillId = param(request.params, 'fill');
      const work = workOf(request);
      if (work.mould?.fills.some((row) => row.id === fillId) !== true)
        throw new DomainError('http/not-found', 'There is no such group of moulds.');
      const now = workshop.now();
      return changeMould(workshop, work.id, (mould) => ({
        ...mould,
        fills: mould.fills.map((row) => (row.id === fillId ? { ...row, outAt: out ? (row.outAt ?? now) : null } : row)),
      }));
    },
  );
  router.write(
    'POST',
    '/api/mould/works/:id/temps',
    'What the bowl is at while it is filled from',
    z.object({
      personId: id,
      tempC: z.number().check(z.minimum(0, 'is colder than any bowl'), z.maximum(90, 'is hotter than any bowl')),
    }),
    ({ personId, tempC }, request) => {
      workshop.checkPerson(personId);
      const at = workshop.now();
      return changeMould(workshop, workOf(request).id, (mould) => ({
        ...mould,
        temps: [...mould.temps, { at, tempC }],
      }));
    },
  );
  const ACTS = { tip: 'tippedAt', fill: 'filledAt', close: 'closedAt' } as const;
  router.write(
    'POST',
    '/api/mould/works/:id/fills/:fill/shell',
    'A group of shells is tipped out, filled or closed; or the last of these not after all',
    z.object({ personId: id, act: z.enum(['tip', 'fill', 'close']), done: z._default(z.boolean(), true) }),
    ({ personId, act, done }, request) => {
      workshop.checkPerson(personId);
      const fillId = param(request.params, 'fill');
      const work = workOf(request);
      const { mould } = work;
      const group = mould?.fills.find((row) => row.id === fillId);
      if (!mould || !group?.shell) throw new DomainError('http/not-found', 'There is no such group of shells.');
      const next = nextOfFill(group, mould.setMin, mould.shellSec).act;
      // Pressed at two screens it was done when it was pressed first.
      if (done && group.shell[ACTS[act]] !== null) return mould;
      if (done && next !== act)
        throw new DomainError('mould/order', 'Shells are tipped out, filled and closed one after the other.', [
          {
            path: 'act',
            message: `comes later: ${next === 'none' ? 'they are out' : NEXT_WORDS[next].toLowerCase()} first`,
          },
        ]);
      const now = workshop.now();
      return changeMould(workshop, work.id, (live) => ({
        ...live,
        fills: live.fills.map((row) =>
          row.id === fillId && row.shell ? { ...row, shell: { ...row.shell, [ACTS[act]]: done ? now : null } } : row,
        ),
      }));
    },
  );
  router.write(
    'POST',
    '/api/mould/works/:id/weights',
    'What a piece weighs',
    z.object({ personId: id, massG: weights.def.element }),
    ({ personId, massG }, request) => {
      workshop.checkPerson(personId);
      return changeMould(workshop, workOf(request).id, (mould) => ({ ...mould, weightsG: [...mould.weightsG, massG] }));
    },
  );
  router.write('DELETE', '/api/mould/works/:id/weights/last', 'Take the last weight back', z.object({}), (_, request) =>
    changeMould(workshop, workOf(request).id, (mould) => ({ ...mould, weightsG: mould.weightsG.slice(0, -1) })),
  );
  router.calc(
    '/api/calc/mould/weights',
    'Weights of pieces against the declared one, by a system of weight control',
    z.object({
      weightsG: weights,
      declaredG: z.number().check(z.positive('must be more than 0'), z.maximum(20_000, 'is more than 20 kg')),
      system: z._default(z.enum(WEIGHT_SYSTEMS), 'eu'),
    }),
    ({ weightsG, declaredG, system }) => studyWeights(weightsG, declaredG, system),
  );
  const whole = z
    .number()
    .check(z.int('must be whole'), z.minimum(0, 'cannot be below 0'), z.maximum(100_000, 'is too many'));
  router.calc(
    '/api/calc/mould/plan',
    'Bars, moulds, fills and cabinet runs of a bowl',
    z.object({
      chocolateG: z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(2_000_000, 'is too much')),
      holdUpG: z._default(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100_000, 'is too much')), 0),
      barG: z.number().check(z.positive('must be more than 0'), z.maximum(20_000, 'is more than 20 kg')),
      cavities: whole.check(z.minimum(1, 'must be at least 1')),
      owned: z._default(whole, 0),
      cabinetMoulds: z._default(whole, 0),
      setMin: z._default(
        z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1440, 'is more than a day')),
        25,
      ),
    }),
    ({ chocolateG, holdUpG, barG, ...set }) => planMoulds(chocolateG, holdUpG, barG, set),
  );
}
