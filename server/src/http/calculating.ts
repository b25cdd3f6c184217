import type { AskedAt } from '@wunsch/core/api/writes';
import type { FastifyRequest } from 'fastify';
import type { z } from 'zod/mini';

/** Where calculations are registered: each takes a body and changes nothing. */
export interface Calculators {
  calc<B extends z.ZodMiniType, U extends string = string>(
    url: U,
    summary: string,
    body: B,
    answer: (body: z.infer<B>, request: FastifyRequest) => AskedAt<U>,
    bodyLimit?: number,
  ): void;
  /** One that may take its time: done on a thread of its own, so its answer comes from the body alone. */
  away<B extends z.ZodMiniType, U extends string = string>(
    url: U,
    summary: string,
    body: B,
    answer: (body: z.infer<B>) => AskedAt<U>,
    bodyLimit?: number,
  ): void;
}
