import type { InspectionView } from '@wunsch/core/api/beans';
import { CUT_CLASSES, CUT_NAMES } from '@wunsch/core/beans/cut-test';
import { FaceIcon } from '../parts/drawings';

/** Shares of a cut test as bars with their intervals, against the limits of grade I. */
export function CutShares({ inspection }: { inspection: InspectionView }) {
  const { shares } = inspection;
  if (!shares) return null;
  const faults = CUT_CLASSES.filter((name) => name !== 'brown' && name !== 'partly' && name !== 'purple');
  const most = Math.max(0.06, ...faults.map((name) => shares[name].high));
  return (
    <div>
      <p className="mb-2">
        {(['brown', 'partly', 'purple'] as const).map((name, index) => (
          <span key={name}>
            {index > 0 && ', '}
            {CUT_NAMES[name].toLowerCase()}{' '}
            <span className="figure text-lg">{(100 * shares[name].share).toFixed(0)}&nbsp;%</span>
          </span>
        ))}
      </p>
      <ul className="grid gap-1">
        {faults.map((name) => {
          const { share, low, high, hits } = shares[name];
          return (
            <li
              key={name}
              className="grid grid-cols-[1.75rem_minmax(0,1fr)_auto] items-center gap-2 sm:grid-cols-[1.75rem_7.5rem_minmax(0,1fr)_9.5rem]"
            >
              <FaceIcon name={name} size={22} />
              <span>{CUT_NAMES[name]}</span>
              <svg
                viewBox="0 0 300 16"
                preserveAspectRatio="none"
                className="order-last col-span-3 h-4 w-full sm:order-none sm:col-span-1"
                aria-hidden
              >
                <line x1={0} x2={300} y1={8} y2={8} stroke="var(--rule)" />
                <rect
                  x={(300 * low) / most}
                  width={(300 * (high - low)) / most}
                  y={4}
                  height={8}
                  fill="var(--leaf)"
                  opacity={0.35}
                />
                <rect x={(300 * share) / most - 1.5} width={3} y={1} height={14} fill="var(--ink)" />
                <line
                  x1={(300 * 0.03) / most}
                  x2={(300 * 0.03) / most}
                  y1={0}
                  y2={16}
                  stroke="var(--crimson)"
                  strokeDasharray="3 2"
                />
              </svg>
              <span className="text-right text-sm">
                <span className="figure text-lg">{(100 * share).toFixed(1)}&nbsp;%</span>{' '}
                <span className="text-soft">
                  {hits}; {(100 * low).toFixed(1)}–{(100 * high).toFixed(1)}
                </span>
              </span>
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-sm text-soft">
        Bars are 95 % Wilson intervals; the dashed line is 3 %, grade I of ISO 2451 (insect, germinated and flat
        together).
      </p>
    </div>
  );
}
