import type { FaultsView, LearnedView, PouredView } from '@wunsch/core/api/temper';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/ledger/commands';
import type { Step } from '@wunsch/core/ledger/types';
import { faultsByBench, type CountedPour } from '@wunsch/core/temper/faults';
import { judgePour, type PourFacts, type TemperReading } from '@wunsch/core/temper/judge';
import { learnedSetting, type PastPour } from '@wunsch/core/temper/learned';
import { dewPointC } from '@wunsch/core/units/humidity';
import type { Curve } from '@wunsch/core/roast/curve';
import type { Work } from '@wunsch/core/workshop/work';
import type { Views } from '../ledger/views';
import { subjectHere, windowsHere } from './windows';

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

/** Pours of the last so many days are counted by their faults. */
const COUNTED_MS = 366 * 86_400_000;
const MOST_COUNTED = 400;

/** Pours that are done: what their curves say, what they teach. */
export class JudgedPours {
  /** By step and by what it was held against: a curve that is logged stays as it is. */
  private readonly known = new Map<string, PouredView>();

  constructor(private readonly views: Views) {}

  /** What a pour's curve says; where none was logged, the three temperatures of its entry. */
  async of(step: Step): Promise<PouredView> {
    const meta = this.curveMeta(step);
    const curve = meta ? await this.views.workshop.readCurve(meta.id) : null;
    return this.judge(step, curve);
  }

  private curveMeta(step: Step) {
    return this.views.workshop.roasts.curveOf(step.slots['good'] ?? '');
  }

  private judge(step: Step, curve: Curve | null): PouredView {
    const { workshop } = this.views;
    const command = step.command as CommandOf<'temper'>;
    const made = step.slots['good'] ?? '';
    const { windows, fatShare, softShare } = windowsHere(this.views, made, step.at);
    const seeded = isSeeded(this.views, command.sources, command.method);
    const facts: PourFacts = {
      windows,
      seeded,
      unit: workshop.settings.temperatureUnit,
      // Without a log nobody knows when they were.
      marks: (curve?.seconds.length ?? 0) < 3 ? [] : (command.marks ?? []),
      ...this.settingOf(made),
    };
    const key = JSON.stringify([step.id, curve?.seconds.length ?? 0, facts]);
    const known = this.known.get(step.id + key);
    if (known) return known;
    const speed = Number(/ (\d+)$/.exec(this.curveMeta(step)?.source ?? '')?.[1] ?? 1);
    const logged: TemperReading[] = curve
      ? Array.from(curve.seconds, (second, i) => ({ second: second * speed, tempC: curve.beanC[i] ?? NaN }))
      : [];
    const byHand = logged.length < 3;
    const readings = byHand
      ? [command.meltC, command.coolC, command.workC].map((tempC, index) => ({ second: 900 * index, tempC }))
      : logged;
    const poured: PouredView = {
      stepId: step.id,
      code: workshop.book.holding(made).code,
      at: step.at,
      method: command.method,
      test: command.test,
      meter: command.meter ?? null,
      marks: command.marks ?? [],
      readings,
      byHand,
      seeded,
      windows,
      fatShare,
      softShare,
      verdict:
        command.method === 'none'
          ? {
              features: null,
              first: null,
              others: [],
              sentence: 'Sold untempered: nothing to judge.',
              sure: 'not known',
            }
          : judgePour(readings, facts),
    };
    if (this.known.size > 4 * MOST_COUNTED) this.known.clear();
    this.known.set(step.id + key, poured);
    return poured;
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

  /** Pours of one bar, by bench, oldest first. @throws DomainError `trace/unknown-code` */
  learned(code: string): LearnedView {
    const { book, settings } = this.views.workshop;
    const holding = book.byCode(code);
    if (!holding) throw new DomainError('trace/unknown-code', 'Nothing here has that code.');
    const subject = subjectHere(this.views, holding.id);
    const byWay = new Map<string, PastPour[]>();
    for (const step of book.timeline) {
      if (step.kind !== 'temper' || step.withdrawn) continue;
      if (subjectHere(this.views, step.slots['good'] ?? '') !== subject) continue;
      const { meltC, coolC, workC, test, method } = step.command as CommandOf<'temper'>;
      const on = this.bench(step.machineId, method);
      byWay.set(on, [...(byWay.get(on) ?? []), { meltC, coolC, workC, test, stepId: step.id, at: step.at }]);
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

  /** How often which fault came first in a year, at which bench. */
  async faults(): Promise<FaultsView> {
    const { workshop } = this.views;
    const since = workshop.now() - COUNTED_MS;
    const steps = workshop.book.timeline.filter(
      ({ kind, withdrawn, at }) => kind === 'temper' && !withdrawn && at >= since,
    );
    const counted = steps.slice(-MOST_COUNTED);
    const metas = counted.map((step) => this.curveMeta(step));
    const curves = await workshop.readCurves(metas.flatMap((meta) => (meta ? [meta.id] : [])));
    const rows = counted.flatMap((step, i): CountedPour[] => {
      const { features, first } = this.judge(step, curves.get(metas[i]?.id ?? '') ?? null).verdict;
      return features
        ? [
            {
              bench: this.bench(step.machineId, (step.command as CommandOf<'temper'>).method),
              first: first?.id ?? null,
            },
          ]
        : [];
    });
    return { since: counted[0]?.at ?? null, benches: faultsByBench(rows) };
  }
}
