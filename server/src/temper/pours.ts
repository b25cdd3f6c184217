import type { PourView } from '@wunsch/core/api/temper';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { simulatedPourC } from '@wunsch/core/temper/simulated-pour';
import { windowsOf, type OwnWindows } from '@wunsch/core/temper/windows';
import type { Work } from '@wunsch/core/workshop/work';
import { seedOf } from '../devices/gauge';
import { curveRow, GrowingCurves, logReading, type Recording } from '../devices/growing-curves';
import type { Views } from '../ledger/views';
import type { CurveRow } from '../store/records';

/** A probe is heard once a second. */
const EVERY_MS = 1000;
/** The log becomes durable so often. */
const KEEP_MS = 3000;
const SILENT_MS = 20_000;
/** A forgotten pour is not logged for ever. */
const LONGEST_MS = 6 * 3_600_000;

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

/** Pours under way: their temperature from a probe, simulated or real, or read by hand. */
export class Pours {
  private readonly curves: GrowingCurves;
  private readonly followed = new Map<string, Followed>();
  private keptAt = 0;
  private busy = false;

  constructor(private readonly views: Views) {
    this.curves = new GrowingCurves(views.workshop);
  }

  private workOf(workId: string): Work {
    const work = this.views.workshop.works.get(workId);
    if (!work || work.station !== 'temper')
      throw new DomainError('http/not-found', 'That pour is not under way any more, perhaps at another screen.');
    return work;
  }

  windowsOf(work: Work): OwnWindows {
    const [first] = work.sources;
    if (!first) throw new DomainError('http/not-found', 'Nothing is in that pour.');
    return windowsOf(this.views.workshop.compositions.of(first.holdingId).figures);
  }

  private isSeeded(work: Work): boolean {
    const { book } = this.views.workshop;
    return work.sources.some(
      ({ holdingId }) => book.holding(holdingId).kind === 'ingredient' && work.sources.length > 1,
    );
  }

  private how(workId: string): Followed | null {
    return this.followed.get(workId) ?? followedOf(this.views.workshop.roasts.curves.get(curveId(workId))?.source);
  }

  async view(workId: string): Promise<PourView> {
    const work = this.workOf(workId);
    const recording = await this.hear(work);
    const how = this.how(workId);
    const own = this.windowsOf(work);
    const now = this.views.workshop.now();
    const first = recording.rows[0]?.at ?? now;
    const last = recording.rows.at(-1);
    return {
      workId,
      probe: how?.probe ?? null,
      speed: how?.speed ?? 1,
      silent: how?.probe === 'sent' && now - (last?.at ?? now) > SILENT_MS,
      windows: own.windows,
      because: own.because,
      seeded: this.isSeeded(work),
      readings: recording.rows.map(({ at, tempC }) => ({
        second: Math.round(((at - first) / 1000) * (how?.speed ?? 1) * 10) / 10,
        tempC,
      })),
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
    const recording = await this.curves.open(curveId(workId));
    const how = this.how(workId);
    if (how === null) this.followed.set(workId, { probe: 'hand', speed: 1 });
    logReading(recording, { at: this.views.workshop.now(), tempC });
    await this.keep(work, recording);
  }

  /** A pour's log as it stands, to be kept with what it made; null where nothing was read. */
  row(work: Work): CurveRow | null {
    const rows = this.curves.read(curveId(work.id));
    return rows.length === 0 ? null : this.rowOf(work, rows);
  }

  private rowOf(work: Work, rows: Recording['rows'] | readonly { at: number; tempC: number }[]): CurveRow {
    const how = this.how(work.id) ?? { probe: 'hand' as const, speed: 1 };
    return curveRow({ id: curveId(work.id), loadId: null, name: 'pour', source: sourceOf(how) }, rows);
  }

  private keep(work: Work, recording: Recording): Promise<void> {
    return this.curves.keep(recording, this.rowOf(work, recording.rows));
  }

  /** Asks a simulated probe for every second since it was last heard. */
  private async hear(work: Work): Promise<Recording> {
    const recording = await this.curves.open(curveId(work.id));
    const how = this.how(work.id);
    if (how?.probe !== 'simulated') return recording;
    const now = this.views.workshop.now();
    const first = recording.rows[0]?.at ?? now;
    if (now - first > LONGEST_MS) return recording;
    const { windows } = this.windowsOf(work);
    const seeded = this.isSeeded(work);
    const last = recording.rows.at(-1)?.at;
    for (let at = last === undefined ? now : last + EVERY_MS; at <= now; at += EVERY_MS)
      logReading(recording, {
        at,
        tempC: simulatedPourC(((at - first) / 1000) * how.speed, windows, seeded, seedOf(work.id)),
      });
    return recording;
  }

  private async tick(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    try {
      const { works, now } = this.views.workshop;
      this.curves.forget((id) => works.has(id.replace(/^pour-/, '')));
      for (const id of this.followed.keys()) if (!works.has(id)) this.followed.delete(id);
      const keeps = now() - this.keptAt >= KEEP_MS;
      if (keeps) this.keptAt = now();
      for (const work of works.values()) {
        if (work.station !== 'temper' || this.how(work.id) === null) continue;
        const recording = await this.hear(work);
        // What was saved meanwhile keeps what it was saved with.
        if (keeps && recording.dirty && works.has(work.id)) await this.keep(work, recording);
      }
    } finally {
      this.busy = false;
    }
  }

  /** Follows pours until stopped. @returns stop */
  watch(log: (error: unknown) => void): () => void {
    const timer = setInterval(() => void this.tick().catch(log), EVERY_MS);
    return () => clearInterval(timer);
  }
}
