import type { GrinderView, GrindRunView } from '@wunsch/core/api/grind';
import type { GrindView } from '@wunsch/core/api/types';
import { useApi } from '../parts/api';

/** What a batch on the stones is doing: its acts, its probe. */
export const useRun = ({ batch }: GrindView): GrindRunView | null =>
  useApi(`/api/grind/batches/${batch.code}/run`, 60_000).data ?? null;

/** A machine as its own bowls know it. */
export const useGrinder = (machineId: string | null | undefined): GrinderView | null =>
  useApi(machineId == null ? null : `/api/grind/machines/${machineId}`).data ?? null;
