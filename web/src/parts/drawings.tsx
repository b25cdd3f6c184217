import type { CutClass } from '@wunsch/core/beans/cut-test';
import type { RejectReason } from '@wunsch/core/ledger/types';
import type { ReactNode } from 'react';
import { Drawing } from './icons';

/** A bean's outline, lying. */
const BEAN = 'M3 12c0-4 4-7 9-7s9 3 9 7-4 7-9 7-9-3-9-7Z';
const FOLDS = 'M7 12c2-2 3 2 5 0s3 2 5 0M9 8.500c1 1 2-1 3 0M12 15.500c1-1 2 1 3 0';

/** What each pile looks like in the hand. */
const PILES: Record<RejectReason, ReactNode> = {
  flat: <path d="M2.500 12c3-2.200 16-2.200 19 0-3 2.200-16 2.200-19 0ZM5 12h14" />,
  broken: (
    <path d="M10.500 5.300C6 6 3 8.700 3 12s3 6 7.500 6.700L9 15l2-3-2-3 1.500-3.700ZM14 5.600l-1.200 3.600 2 2.800-1.800 3 1.300 3.500C18.300 17.500 21 15 21 12s-2.700-5.600-7-6.400Z" />
  ),
  clumped: (
    <path d="M2.500 10c0-2.500 2.500-4 5.500-4s5 1.500 5 4-2 4-5 4-5.500-1.500-5.500-4ZM10.500 16c0-2.500 2.200-4 5.200-4s5.800 1.500 5.800 4-2.800 4-5.800 4-5.200-1.500-5.200-4ZM13 9c2-2 6-2 7 .5" />
  ),
  tiny: (
    <path d="M8.500 12c0-1.700 1.500-3 3.500-3s3.500 1.300 3.500 3-1.500 3-3.500 3-3.500-1.300-3.500-3ZM3 5v14M21 5v14" />
  ),
  shrivelled: (
    <path d="M4 12c.5-1.500 0-3 2-3.500s2-2 4-1.500 2-1 4 0 2 .5 3.500 1.500S19.500 10 20 12s-1 2-2 3.500-2.500.5-4 1.500-2.500 0-4 0-3-.5-4-1.500-2-1.500-2-3.500ZM8 10c1 1 1 3 0 4M12 9c1 2 1 4 0 6M16 10c1 1 1 3 0 4" />
  ),
  germinated: (
    <path d="M3 14c0-3.300 3.500-6 8-6s8 2.700 8 6-3.500 6-8 6-8-2.700-8-6ZM17 9c1-1 1.500-3 3.500-4M20.500 5c-1.500-.5-3 0-3.500 1.500M20.500 5c.8 1.200.5 2.800-.8 3.500" />
  ),
  mouldy: (
    <>
      <path d={BEAN} />
      <path d="M8 10v-3M12 9V5.500M16 10V7M8 10h.01M12 9h.01M16 10h.01M10 14v-2M14 14v-2" />
      <circle cx="8" cy="6.500" r=".8" />
      <circle cx="12" cy="4.500" r=".8" />
      <circle cx="16" cy="6.500" r=".8" />
    </>
  ),
  insect: (
    <>
      <path d={BEAN} />
      <circle cx="9" cy="11" r="1.300" />
      <path d="M13 15c1.500-2 3-2 4.500-4M13.500 13l1 1M15 11.700l1 1" />
    </>
  ),
  foreign: (
    <path d="M4 19 15 8M15 8l1-4M15 8l4 0M9 14l0-4M4 6c2-1 4 0 4 2s-3 2-4 0M15 17l3-1.500 2 2.500-2 2-3-.5-.5-1.500Z" />
  ),
};

/** What each class shows on the cut face. */
const FACES: Record<CutClass, ReactNode> = {
  brown: (
    <>
      <path d={BEAN} />
      <path d={FOLDS} />
    </>
  ),
  partly: (
    <>
      <path d={BEAN} />
      <path d="M12 5v14" />
      <path d="M6 12c1.500-2 2.500 2 4 0M14 8h5M14 10.500h6.500M14 13h6.500M14 15.500h5" />
    </>
  ),
  purple: (
    <>
      <path d={BEAN} />
      <path d="M5 8.500h14M3.500 11h17M3.500 13.500h17M5 16h14" />
    </>
  ),
  slaty: (
    <>
      <path d={BEAN} />
      <path d="M6 9h.01M9 7.500h.01M12 9h.01M15 7.500h.01M18 9h.01M6 12h.01M9 11h.01M12 12h.01M15 11h.01M18 12h.01M7 15h.01M10 14.500h.01M13 15.500h.01M16 15h.01" />
    </>
  ),
  mouldy: PILES.mouldy,
  insect: PILES.insect,
  germinated: PILES.germinated,
  flat: PILES.flat,
};

export const PileIcon = ({ reason, size = 26 }: { reason: string; size?: number }) => (
  <Drawing size={size} stroke={1.5}>
    {(PILES as Partial<Record<string, ReactNode>>)[reason] ?? <path d={BEAN} strokeDasharray="2.5 2.5" />}
  </Drawing>
);
export const FaceIcon = ({ name, size = 26 }: { name: CutClass; size?: number }) => (
  <Drawing size={size} stroke={1.5}>
    {FACES[name]}
  </Drawing>
);
