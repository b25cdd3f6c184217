import { expose } from 'comlink';
import { forecastConche, type ConcheForecast } from '@wunsch/core/grind/conche';
import { forecastGrind, type GrindPrior } from '@wunsch/core/grind/forecast';
import { tonight, type GrindStudy, type GrindTonight } from '@wunsch/core/grind/tonight';

const priorOf = ({ prior }: GrindStudy): GrindPrior => ({ ...prior, getsUnder: prior.getsUnder ?? Infinity });

/** Forecasts of grinds, off the page's thread. */
const stones = {
  tonight: (study: GrindStudy): GrindTonight => tonight(study),

  conche: (study: GrindStudy, wanted: number): ConcheForecast =>
    forecastConche(study.conche.tastes, study.conche.heat, wanted, study.nowH),

  /** What a forecast said once: the running hours that eight in ten lie between, and the middle. */
  foretold: (study: GrindStudy): { p10: number; p50: number; p90: number } => {
    const { p10, p50, p90 } = forecastGrind({ ...study, prior: priorOf(study) });
    return { p10, p50, p90 };
  },
};
export type Stones = typeof stones;

expose(stones);
