import type { ApexOptions } from 'apexcharts';
import imported from 'react-apexcharts';

type ChartComponent = typeof imported;

/** The package is CommonJS: what a bundler hands over may be the module around the component. */
export const Chart: ChartComponent = (imported as unknown as { default?: ChartComponent }).default ?? imported;

/** Colours as the theme has them now. */
export function ink(): {
  ink: string;
  soft: string;
  rule: string;
  leaf: string;
  crimson: string;
  ripe: string;
  wash: string;
} {
  const style = getComputedStyle(document.documentElement);
  const read = (name: string): string => style.getPropertyValue(name).trim();
  return {
    ink: read('--ink'),
    soft: read('--ink-soft'),
    rule: read('--rule'),
    leaf: read('--leaf'),
    crimson: read('--crimson'),
    ripe: read('--ripe'),
    wash: read('--leaf-wash'),
  };
}

/** Too narrow for many ticks. */
export const isNarrow = (): boolean => window.matchMedia('(max-width: 640px)').matches;

/** A quiet chart: no tools, no legend, thin rules. */
export function quiet(): ApexOptions {
  const { soft, rule } = ink();
  return {
    chart: {
      toolbar: { show: false },
      zoom: { enabled: false },
      animations: { enabled: false },
      fontFamily: 'inherit',
      foreColor: soft,
      parentHeightOffset: 0,
    },
    grid: { borderColor: rule, strokeDashArray: 0, padding: { left: 8, right: 12, top: -16, bottom: -4 } },
    legend: { show: false },
    dataLabels: { enabled: false },
    tooltip: { theme: document.documentElement.dataset['theme'] === 'night' ? 'dark' : 'light' },
  };
}
