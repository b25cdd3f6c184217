import type { Problem } from '@wunsch/core/api/types';
import { ApiError } from '../src/parts/api';

/** A write that the server refuses. */
export const refusing = (detail: string, errors: Problem['errors']) => (): Promise<never> =>
  Promise.reject(new ApiError({ type: '', title: 'Refused', status: 422, code: 'http/invalid', detail, errors }));
