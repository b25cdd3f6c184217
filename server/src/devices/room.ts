import { DomainError } from '@wunsch/core/errors/domain-error';

/** What a room sensor says. */
export interface RoomReading {
  tempC: number;
  humidityPct: number;
  at: number;
  simulated: boolean;
  /** Nothing is heard from it. */
  unplugged: boolean;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const YEAR_MS = 365.25 * DAY_MS;
/** A reading posted from outside counts for so long. */
const FRESH_MS = 30 * 60_000;
const KEPT = 500;

/** Chance that is the same for the same moment: between −1 and 1. */
function ripple(at: number, period: number): number {
  const x = Math.sin(Math.floor(at / period) * 12.9898) * 43758.5453;
  return 2 * (x - Math.floor(x)) - 1;
}

/**
 * The air of the bean store. The simulated sensor follows season and hour with small ripples, a function of
 * the time alone; a real one posts its readings over HTTP and takes over while they are fresh.
 */
export class RoomSensor {
  private readonly posted: RoomReading[] = [];
  mood = { damp: false, unplugged: false };

  constructor(private readonly now: () => number) {}

  /** Takes a reading from outside. */
  post(tempC: number, humidityPct: number): void {
    if (!(humidityPct > 0 && humidityPct <= 100))
      throw new DomainError('devices/humidity', 'Humidity is over 0 and at most 100 %.');
    this.posted.push({ tempC, humidityPct, at: this.now(), simulated: false, unplugged: false });
    if (this.posted.length > KEPT) this.posted.shift();
  }

  read(): RoomReading {
    const newest = this.posted.at(-1);
    if (newest && this.now() - newest.at < FRESH_MS) return newest;
    return this.simulate(this.now());
  }

  /** Hourly readings of the last day, oldest first. */
  past(): RoomReading[] {
    const now = Math.floor(this.now() / HOUR_MS) * HOUR_MS;
    return Array.from({ length: 25 }, (_, index) => {
      const at = now - (24 - index) * HOUR_MS;
      const real = this.posted.filter((row) => row.at <= at && row.at > at - HOUR_MS).at(-1);
      return real ?? this.simulate(at);
    });
  }

  private simulate(at: number): RoomReading {
    const season = Math.cos((2 * Math.PI * (at - 200 * DAY_MS)) / YEAR_MS);
    const hour = Math.cos((2 * Math.PI * (at - 15 * HOUR_MS)) / DAY_MS);
    const tempC = 17.2 + 3.4 * season + 0.7 * hour + 0.25 * ripple(at, HOUR_MS / 2);
    const humidityPct = 56 - 4 * season - 2 * hour + 1.5 * ripple(at + 1, HOUR_MS) + (this.mood.damp ? 16 : 0);
    return {
      tempC: Math.round(tempC * 10) / 10,
      humidityPct: Math.round(humidityPct),
      at,
      simulated: true,
      unplugged: this.mood.unplugged,
    };
  }
}
