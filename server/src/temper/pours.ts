import type { PourView, SilkView } from '@wunsch/core/api/temper';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { isSilent, takeReading, type LogRow } from '@wunsch/core/run/log';
import { POUR_CHANNELS } from '@wunsch/core/temper/channels';
import { simulatedPourC } from '@wunsch/core/temper/simulated-pour';
import { silkNow, simulatedSilkC } from '@wunsch/core/temper/silk';
import { NO_POUR } from '@wunsch/core/work/tempering';
import type { Work } from '@wunsch/core/workshop/work';
import { seedOf } from '../devices/gauge';
import type { Views } from '../ledger/views';
import { Follower } from '../run/follower';
import { logRow, RunLogs, type RunLog } from '../run/logs';
import type { CurveRow } from '../store/curves';
import { isSeeded } from './judged';
import { windowsHere, type WindowsHere } from './windows';

/** A probe is heard once a second. */
const EVERY_MS = 1000;
/** The log becomes durable so often. */
const KEEP_MS = 3000;
const SILENT_MS = 20_000;
/** A forgotten pour is not logged for ever; silk takes a day, and a minute is soon enough for it. */
const LONGEST_MS = 6 * 3_600_000;
const LONGEST_SILK_MS = 96 * 3_600_000;
const SILK_EVERY_MS = 60_000;

/** How a pour is followed: which probe, from when, and how fast a simulated one runs. Kept in the curve's source. */
interface Followed {
  probe: 'simulated' | 'sent' | 'hand';
  speed: number;
}
const sourceOf = ({ probe, speed }: Followed): string => `pour ${probe} ${speed}`;
function followedOf(source: string | undefined): Followed | null {
  const [, probe, speed] = /^pour (simulated|sent|hand) (\d+)$/.exec(source ?? '') ?? [];
  return probe === undefined ? null : { probe: probe as Followed['probe'], speed: Number(speed) };
}

const curveId = (workId: string): string => `pour-${workId}`;

/** Grams of what is in a pour. */
export const massOf = ({ sources }: Pick<Work, 'sources'>): number =>
  sources.reduce((sum, { massMg }) => sum + massMg, 0) / 1000;

/** Pours under way: their temperature from a probe, simulated or real, or read by hand. */
export class Pours {
  private readonly logs: RunLogs;
  private readonly follower: Follower<Work>;
  private readonly followed = new Map<string, Followed>();
  /** What the simulated probe does that real ones do too. */
  mood = { stuck: false, unplugged: false };
  /** What it did not hear it does not make up later. */
  private deafUntil = 0;

  constructor(
    private readonly views: Views,
    log: (error: unknown) => void,
  ) {
    const { workshop } = views;
    this.logs = new RunLogs(workshop, POUR_CHANNELS);
    this.follower = new Follower({
      everyMs: EVERY_MS,
      keepMs: KEEP_MS,
      now: workshop.now,
      runs: () =>
        [...workshop.works.values()].filter(({ id, station }) => station === 'temper' && this.how(id) !== null),
      idOf: ({ id }) => id,
      look: async (work) => {
        await this.hear(work);
      },
      keep: (work) => this.keepOne(work),
      after: () => {
        this.logs.forget((id) => workshop.works.has(id.replace(/^pour-/, '')));
        for (const id of this.followed.keys()) if (!workshop.works.has(id)) this.followed.delete(id);
      },
      log,
    });
  }

  /** @throws DomainError where no such pour is under way */
  workOf(workId: string): Work {
    const work = this.views.workshop.works.get(workId);
    if (!work || work.station !== 'temper')
      throw new DomainError('http/not-found', 'That pour is not under way any more, perhaps at another screen.');
    return work;
  }

  /** Windows of what is in a pour. */
  windowsOf(work: Work): WindowsHere {
    const [first] = work.sources;
    if (!first) throw new DomainError('http/not-found', 'Nothing is in that pour.');
    return windowsHere(this.views, first.holdingId);
  }

  private how(workId: string): Followed | null {
    return this.followed.get(workId) ?? followedOf(this.views.workshop.roasts.curves.get(curveId(workId))?.source);
  }

  async view(workId: string): Promise<PourView> {
    const work = this.workOf(workId);
    const own = this.windowsOf(work);
    const { readings, ...rest } = await this.heard(work);
    return {
      ...rest,
      readings,
      windows: own.windows,
      because: own.because,
      seeded: isSeeded(this.views, work.sources, work.pour?.school ?? undefined),
      nowS: this.secondsInto(work),
      pour: work.pour ?? NO_POUR,
      massG: massOf(work),
      fatShare: own.fatShare,
      softShare: own.softShare,
    };
  }

  async silk(workId: string): Promise<SilkView> {
    const work = this.workOf(workId);
    if (work.silk !== true) throw new DomainError('http/not-found', 'That work is no silk.');
    return this.heard(work);
  }

  /** Hours that a silk run was held so far, from its log. */
  silkNow(work: Work): ReturnType<typeof silkNow> {
    return silkNow(
      this.secondsOf(work, this.logs.read(curveId(work.id))),
      this.views.workshop.settings.temperatureUnit,
    );
  }

  /** Seconds into a pour, on its own clock: since it was first read, or since it began. */
  secondsInto(work: Work): number {
    const first = this.logs.read(curveId(work.id))[0]?.at ?? work.startedAt;
    return Math.max(0, ((this.views.workshop.now() - first) / 1000) * (this.how(work.id)?.speed ?? 1));
  }

  /** What is in a bowl at this moment, by its readings: none before the first. */
  readingsOf(work: Work): PourView['readings'] {
    return this.secondsOf(work, this.logs.read(curveId(work.id)));
  }

  private secondsOf(work: Work, rows: readonly LogRow[]): PourView['readings'] {
    const first = rows[0]?.at ?? 0;
    const speed = this.how(work.id)?.speed ?? 1;
    return rows.map(({ at, values: [tempC = NaN] }) => ({
      second: Math.round(((at - first) / 1000) * speed * 10) / 10,
      tempC,
    }));
  }

  private async heard(work: Work): Promise<SilkView> {
    const log = await this.hear(work);
    const how = this.how(work.id);
    const now = this.views.workshop.now();
    return {
      workId: work.id,
      probe: how?.probe ?? null,
      speed: how?.speed ?? 1,
      silent:
        (how?.probe === 'sent' || how?.probe === 'simulated') &&
        isSilent(log.rows.at(-1)?.at ?? now, 0, now, work.silk === true ? 10 * SILK_EVERY_MS : SILENT_MS),
      trouble: this.follower.trouble(work.id),
      readings: this.secondsOf(work, log.rows),
    };
  }

  /** Says how a pour is followed from now on. */
  async follow(workId: string, how: Followed | null): Promise<void> {
    const work = this.workOf(workId);
    if (how === null) {
      this.followed.set(workId, { probe: 'hand', speed: this.how(workId)?.speed ?? 1 });
      return;
    }
    this.followed.set(workId, how);
    await this.hear(work);
  }

  /** Takes a reading of a hand or of a real probe, and makes it durable. */
  async take(workId: string, tempC: number): Promise<void> {
    const work = this.workOf(workId);
    const log = await this.logs.open(curveId(workId));
    const how = this.how(workId);
    if (how === null) this.followed.set(workId, { probe: 'hand', speed: 1 });
    takeReading(log.rows, { at: this.views.workshop.now(), values: [tempC] });
    log.dirty = true;
    await this.keepOne(work);
  }

  /** A pour's log as it stands, to be kept with what it made; null where nothing was read. */
  row(work: Work): CurveRow | null {
    const rows = this.logs.read(curveId(work.id));
    return rows.length === 0 ? null : this.rowOf(work, rows);
  }

  private rowOf(work: Work, rows: readonly LogRow[]): CurveRow {
    const how = this.how(work.id) ?? { probe: 'hand' as const, speed: 1 };
    return logRow({ id: curveId(work.id), loadId: null, name: 'pour', source: sourceOf(how) }, POUR_CHANNELS, rows);
  }

  private async keepOne(work: Work): Promise<void> {
    const log = await this.logs.open(curveId(work.id));
    // What was saved meanwhile keeps what it was saved with.
    if (log.dirty && this.views.workshop.works.has(work.id)) await this.logs.keep(log, this.rowOf(work, log.rows));
  }

  /** Asks a simulated probe for every second since it was last heard. */
  private async hear(work: Work): Promise<RunLog> {
    const log = await this.logs.open(curveId(work.id));
    const how = this.how(work.id);
    if (how?.probe !== 'simulated') return log;
    const now = this.views.workshop.now();
    const first = log.rows[0]?.at ?? now;
    const isSilk = work.silk === true;
    if (now - first > (isSilk ? LONGEST_SILK_MS : LONGEST_MS)) return log;
    const everyMs = isSilk ? Math.max(EVERY_MS, SILK_EVERY_MS / how.speed) : EVERY_MS;
    const { windows } = this.windowsOf(work);
    const seeded = isSeeded(this.views, work.sources, work.pour?.school ?? undefined);
    const last = log.rows.at(-1)?.at;
    if (this.mood.unplugged) {
      this.deafUntil = now;
      return log;
    }
    const lastC = log.rows.at(-1)?.values[0];
    for (let at = last === undefined ? now : Math.max(last + everyMs, this.deafUntil); at <= now; at += everyMs) {
      const second = ((at - first) / 1000) * how.speed;
      const tempC =
        this.mood.stuck && lastC !== undefined
          ? lastC
          : isSilk
            ? simulatedSilkC(second, seedOf(work.id))
            : simulatedPourC(second, windows, seeded, seedOf(work.id));
      takeReading(log.rows, { at, values: [tempC] });
      log.dirty = true;
    }
    return log;
  }

  /** Follows pours until stopped. @returns stop, which keeps what was read */
  watch(): () => Promise<void> {
    return this.follower.watch();
  }
}
