import type { FaultsView, LearnedView, PouredView } from '@wunsch/core/api/temper';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import type { Step } from '@wunsch/core/ledger/types';
import { faultsByBench, type CountedPour } from '@wunsch/core/temper/faults';
import { judgePour, type PourFacts, type TemperReading, type TemperVerdict } from '@wunsch/core/temper/judge';
import { learnedSetting, type PastPour } from '@wunsch/core/temper/learned';
import { dewPointC } from '@wunsch/core/units/humidity';
import { channelOf, type Readings } from '@wunsch/core/run/readings';
import { BOWL } from '@wunsch/core/temper/channels';
import type { Work } from '@wunsch/core/workshop/work';
import type { Views } from '../ledger/views';
import type { CurveMeta } from '@wunsch/core/workshop/kept';
import { subjectHere, windowsHere, type WindowsHere } from './windows';

/** Whether a pour needs no low point: it was seeded, or cocoa butter or chocolate in temper went in. */
export function isSeeded(views: Views, sources: readonly { holdingId: string }[], method?: string): boolean {
  if (method === 'silk' || method === 'seed') return true;
  const { book, materials } = views.workshop;
  return (
    sources.length > 1 &&
    sources.some(({ holdingId }) => {
      const material = materials.get(book.holdings.get(holdingId)?.materialId ?? '');
      return material !== undefined && material.cocoa !== 'none';
    })
  );
}

/** Share by weight of what went in as seed or silk, 0 to 1; null where it was not weighed apart. */
export function seedShareOf(
  views: Views,
  sources: readonly { holdingId: string; massG?: number | undefined }[],
  method: string,
): number | null {
  const { book, materials } = views.workshop;
  const all = sources.reduce((sum, { massG = 0 }) => sum + massG, 0);
  if (sources.length < 2 || all <= 0) return null;
  const isButter = ({ holdingId }: { holdingId: string }): boolean =>
    materials.get(book.holdings.get(holdingId)?.materialId ?? '')?.cocoa === 'butter';
  const butter = sources.filter(isButter).reduce((sum, { massG = 0 }) => sum + massG, 0);
  if (butter > 0) return butter / all;
  // Seed is the smaller part that joined the bowl.
  return method === 'seed' ? Math.min(...sources.map(({ massG = 0 }) => massG)) / all : null;
}

/** Pours of the last so many days are counted by their faults. */
const COUNTED_MS = 366 * 86_400_000;
const MOST_COUNTED = 400;

/** Fewer readings are no log. */
const FEWEST = 3;
/** Curves that are read together. */
const AT_ONCE = 40;

/** A pour, and what it is held against. */
interface About {
  command: CommandOf<'temper'>;
  made: string;
  meta: CurveMeta | null;
  here: WindowsHere;
  facts: PourFacts;
  /** The same for the same pour, held against the same. */
  key: string;
}

/** Temperatures of a pour by its log; without one, the three figures of its entry, a quarter of an hour apart. */
function readingsOf({ command, meta }: About, curve: Readings | null): TemperReading[] {
  if (!curve || curve.seconds.length < FEWEST)
    return [command.meltC, command.coolC, command.workC].map((tempC, index) => ({ second: 900 * index, tempC }));
  const speed = Number(/ (\d+)$/.exec(meta?.source ?? '')?.[1] ?? 1);
  const bowlC = channelOf(curve, BOWL);
  return Array.from(curve.seconds, (second, i) => ({ second: second * speed, tempC: bowlC[i] ?? NaN }));
}

/** Pours that are done: what their curves say, what they teach. */
export class JudgedPours {
  /** By step and by what it was held against: a curve that is logged stays as it is. */
  private readonly known = new Map<string, TemperVerdict>();

  constructor(private readonly views: Views) {}

  /** What a pour's curve says; where none was logged, the three temperatures of its entry. */
  async of(step: Step): Promise<PouredView> {
    const { workshop } = this.views;
    const about = this.about(step);
    const { command, made, here, facts, meta } = about;
    const readings = readingsOf(about, meta ? await workshop.readCurve(meta.id) : null);
    return {
      stepId: step.id,
      code: workshop.book.holding(made).code,
      at: step.at,
      method: command.method,
      test: command.test,
      meter: command.meter ?? null,
      marks: command.marks ?? [],
      readings,
      byHand: (meta?.readings ?? 0) < FEWEST,
      seeded: facts.seeded,
      seedShare: facts.seeded ? seedShareOf(this.views, command.sources, command.method) : null,
      windows: here.windows,
      fatShare: here.fatShare,
      softShare: here.softShare,
      verdict: this.judge(about, readings),
    };
  }

  /** What a pour is held against. */
  private about(step: Step): About {
    const { workshop } = this.views;
    const command = step.command as CommandOf<'temper'>;
    const made = step.slots['good'] ?? '';
    const meta = workshop.roasts.curveOf(made);
    const here = windowsHere(this.views, made, step.at);
    const facts: PourFacts = {
      windows: here.windows,
      seeded: isSeeded(this.views, command.sources, command.method),
      unit: workshop.settings.temperatureUnit,
      // Without a log nobody knows when they were.
      marks: (meta?.readings ?? 0) < FEWEST ? [] : (command.marks ?? []),
      ...this.settingOf(made),
    };
    return { command, made, meta, here, facts, key: `${step.id} ${JSON.stringify([meta?.readings ?? 0, facts])}` };
  }

  private judge({ command, facts, key }: About, readings: readonly TemperReading[]): TemperVerdict {
    const known = this.known.get(key);
    if (known) return known;
    const verdict: TemperVerdict =
      command.method === 'none'
        ? { features: null, first: null, others: [], sentence: 'Sold untempered: nothing to judge.', sure: 'not known' }
        : judgePour(readings, facts);
    this.known.set(key, verdict);
    return verdict;
  }

  /** How a pour's moulds, the place where they set and its air were, as its moulding says. */
  private settingOf(made: string): Pick<PourFacts, 'mouldC' | 'setC' | 'dewPointC'> {
    const { book } = this.views.workshop;
    const entry = book.entriesOf(made).findLast(({ kind, massMg }) => kind === 'mould' && massMg < 0);
    const command = book.steps.get(entry?.stepId ?? '')?.command as CommandOf<'mould'> | undefined;
    const air = command?.air ?? null;
    return {
      mouldC: command?.mouldC ?? null,
      setC: command?.setC ?? null,
      dewPointC: air === null || air.humidityPct === null ? null : dewPointC(air.tempC, air.humidityPct),
    };
  }

  private bench(machineId: string | null, method: string): string {
    const machine = machineId === null ? undefined : this.views.workshop.machines.get(machineId)?.name;
    return `${machine ?? 'the bench'}, by ${method}`;
  }

  /** The best known setting of what is in a pour on its machine; null where too little is known. */
  bestOn({ sources, machineId }: Work): LearnedView['settings'][number] | null {
    const [first] = sources;
    if (!first || machineId === null) return null;
    const on = this.bench(machineId, 'machine');
    const { settings } = this.learned(this.views.workshop.book.holding(first.holdingId).code);
    return settings.find((row) => row.on === on) ?? null;
  }

  private holdingOf(code: string) {
    const holding = this.views.workshop.book.byCode(code);
    if (!holding) throw new DomainError('trace/unknown-code', 'Nothing here has that code.');
    return holding;
  }

  /** Pours of what is in a holding, oldest first. */
  private poursLike(holdingId: string): Step[] {
    const subject = subjectHere(this.views, holdingId);
    return this.views.workshop.book.timeline.filter(
      ({ kind, withdrawn, slots }) =>
        kind === 'temper' && !withdrawn && subjectHere(this.views, slots['good'] ?? '') === subject,
    );
  }

  /** What earlier pours teach, with how long they were kept in temper. @throws DomainError `trace/unknown-code` */
  async learnedFully(code: string): Promise<LearnedView> {
    const counted = this.poursLike(this.holdingOf(code).id)
      .slice(-MOST_COUNTED)
      .map((step) => ({ step, about: this.about(step) }));
    await this.readFresh(counted);
    const held = counted.flatMap(({ step, about }) => {
      if ((about.meta?.readings ?? 0) < FEWEST) return [];
      const { features } = this.judge(about, []);
      return features ? [[step.id, features.heldMin] as const] : [];
    });
    return this.learned(code, new Map(held));
  }

  /**
   * Pours of one bar, by bench, oldest first.
   *
   * @param held minutes in temper by step, where they are known
   * @throws DomainError `trace/unknown-code`
   */
  learned(code: string, held: ReadonlyMap<string, number> = new Map()): LearnedView {
    const { settings } = this.views.workshop;
    const holding = this.holdingOf(code);
    const byWay = new Map<string, PastPour[]>();
    for (const step of this.poursLike(holding.id)) {
      const { meltC, coolC, workC, test, method } = step.command as CommandOf<'temper'>;
      const on = this.bench(step.machineId, method);
      const heldMin = held.get(step.id) ?? null;
      byWay.set(on, [...(byWay.get(on) ?? []), { meltC, coolC, workC, test, heldMin, stepId: step.id, at: step.at }]);
    }
    const rows = [...byWay];
    return {
      name: windowsHere(this.views, holding.id).subjectName,
      settings: rows
        .flatMap(([on, pours]) => {
          const found = learnedSetting(pours, on, settings.temperatureUnit);
          return found ? [{ ...found, on }] : [];
        })
        .sort((a, b) => b.good - a.good),
      pours: rows.flatMap(([on, pours]) => pours.map((row) => ({ ...row, on }))),
    };
  }

  /** Reads the curves of those pours only that nobody asked for before, a few at a time. */
  private async readFresh(counted: readonly { about: About }[]): Promise<void> {
    const fresh = counted.filter(({ about }) => !this.known.has(about.key));
    for (let i = 0; i < fresh.length; i += AT_ONCE) {
      const some = fresh.slice(i, i + AT_ONCE);
      const curves = await this.views.workshop.readCurves(
        some.flatMap(({ about: { meta } }) => (meta ? [meta.id] : [])),
      );
      for (const { about } of some) this.judge(about, readingsOf(about, curves.get(about.meta?.id ?? '') ?? null));
    }
  }

  /** How often which fault came first in a year, at which bench. */
  async faults(): Promise<FaultsView> {
    const { workshop } = this.views;
    if (this.known.size > 4 * MOST_COUNTED) this.known.clear();
    const since = workshop.now() - COUNTED_MS;
    const steps = workshop.book.timeline.filter(
      ({ kind, withdrawn, at }) => kind === 'temper' && !withdrawn && at >= since,
    );
    const counted = steps.slice(-MOST_COUNTED).map((step) => ({ step, about: this.about(step) }));
    await this.readFresh(counted);
    const rows = counted.flatMap(({ step, about }): CountedPour[] => {
      const { features, first } = this.judge(about, readingsOf(about, null));
      const bench = this.bench(step.machineId, about.command.method);
      return features ? [{ bench, first: first?.id ?? null }] : [];
    });
    return { since: counted[0]?.step.at ?? null, benches: faultsByBench(rows) };
  }
}
