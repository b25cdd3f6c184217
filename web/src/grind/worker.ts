import { expose } from 'comlink';
import { forecastConche, type ConcheForecast } from '@wunsch/core/grind/conche';
import { effectOfMoving, type MoveEffect } from '@wunsch/core/grind/moved';
import type { ActKind } from '@wunsch/core/ledger/types';
import { forecastGrind, type GrindPrior } from '@wunsch/core/grind/forecast';
import type { TemperatureUnit } from '@wunsch/core/units/temperature';
import { tonight, type GrindStudy, type GrindTonight } from '@wunsch/core/grind/tonight';

const priorOf = ({ prior }: GrindStudy): GrindPrior => ({ ...prior, getsUnder: prior.getsUnder ?? Infinity });

/** Forecasts of grinds, off the page's thread. */
const stones = {
  tonight: (study: GrindStudy): GrindTonight => tonight(study),

  /** What moving an act to another time does to the end. */
  moved: (study: GrindStudy, act: { id: string; kind: ActKind; what: string }, toAt: number): MoveEffect =>
    effectOfMoving(study, act, toAt),

  conche: (
    { conche }: GrindStudy,
    of: 'tastes' | 'astringency',
    wanted: number,
    unit: TemperatureUnit,
  ): ConcheForecast => {
    const prior = (of === 'tastes' ? conche.prior : null) ?? undefined;
    return forecastConche(conche[of], conche.heat, wanted, conche.nowH, prior, unit);
  },

  /** What a forecast said once: the running hours that eight in ten lie between, and the middle. */
  foretold: (study: GrindStudy): { p10: number; p50: number; p90: number } => {
    const { p10, p50, p90 } = forecastGrind({ ...study, prior: priorOf(study) });
    return { p10, p50, p90 };
  },
};
export type Stones = typeof stones;

expose(stones);
