import { lazy, Suspense, useMemo, type ReactElement } from 'react';
import type { PlanBand } from '@wunsch/core/roast/band';
import { gapsOf } from '@wunsch/core/run/gaps';
import type { Ahead } from '@wunsch/core/roast/live';
import { useHere, useShow } from '../parts/workshop';
import { curveLines, plainLine, settingLine } from './lines';
import type { Live } from './useLive';

const RoastChart = lazy(() => import('../charts/RoastChart'));

/** Seconds of a roast between two drawings: a line moves by a pixel in so many, and to draw it takes a quarter of one. */
const DRAWN_EVERY_S = 3;

/** How it goes over how it was planned, and where it is heading. */
export function LiveChart({
  live: { view, curve, second },
  plan,
  ahead,
  endMin,
  onPlot,
}: {
  live: Live;
  plan: PlanBand | null;
  ahead: Ahead | null;
  endMin: number;
  onPlot: (plot: { left: number; width: number }) => void;
}) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const { roast } = view;
  const count = curve.seconds.length;
  const isOver = roast.seconds !== null;
  const draw = (): ReactElement => {
    const lines = curveLines(curve, show.fromCelsius);
    const band = plan?.minutes.map((x, i) => ({
      x,
      low: show.fromCelsius(plan.low[i] ?? 0),
      high: show.fromCelsius(plan.high[i] ?? 0),
    }));
    const gaps = gapsOf(
      curve.seconds,
      curve.beanC.map((value) => value ?? NaN),
    );
    return (
      <RoastChart
        caption="Over the minutes; the band is where eight in ten such loads would run"
        endMin={endMin}
        unit={`°${temperatureUnit}`}
        band={band}
        height={isOver ? 320 : 215}
        onPlot={onPlot}
        low={0}
        lines={[
          ...(plan
            ? [
                {
                  name: 'planned',
                  look: 'plan' as const,
                  points: plainLine(plan.middle.minutes, plan.middle.beanC, show.fromCelsius, 120),
                },
              ]
            : []),
          { name: 'set', look: 'set', points: settingLine(roast.settings, second, show.fromCelsius) },
          ...(lines.air.length > 0 ? [{ name: 'air', look: 'air' as const, points: lines.air }] : []),
          ...(ahead && !isOver
            ? [
                {
                  name: 'beans, expected',
                  look: 'ahead' as const,
                  points: plainLine(ahead.minutes, ahead.beanC, show.fromCelsius, 80),
                },
              ]
            : []),
          // Where the line goes on, its name stands at the end of that.
          { name: ahead && !isOver ? '' : 'beans', look: 'bean', points: lines.bean },
        ]}
        marks={[
          // The words stand on the lane below; here only where they cut the curve.
          ...roast.signs.map(({ second: at }) => ({ x: at / 60, word: '' })),
          ...roast.stirs.map((at) => ({ x: at / 60, word: 'stirred' })),
        ]}
        stretches={gaps.map(({ fromS, toS }) => ({ from: fromS / 60, to: toS / 60, word: 'not read' }))}
      />
    );
  };
  // What is read and expected goes with the moment, what is done is drawn at once.
  const key = JSON.stringify([
    isOver ? count : Math.floor(second / DRAWN_EVERY_S),
    isOver,
    ahead === null,
    endMin,
    temperatureUnit,
    roast.signs,
    roast.stirs,
    roast.settings,
    document.documentElement.dataset['theme'],
  ]);
  const chart = useMemo(
    () => draw(),
    // The key holds what is worth drawing it for.
    // oxlint-disable-next-line react/exhaustive-deps
    [key, plan],
  );
  return <Suspense fallback={<div className="h-[235px]" />}>{chart}</Suspense>;
}
