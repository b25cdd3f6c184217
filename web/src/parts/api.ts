import type { AnswerOf, ReadPath } from '@wunsch/core/api/reads';
import type { AskedOf, AskPath, WritePath, WrittenOf } from '@wunsch/core/api/writes';
import useSWR, { mutate, type SWRResponse } from 'swr';
import type { Problem } from '@wunsch/core/api/types';
import { newKey } from './draft';

/** A refusal from the server, as it was sent. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

const offline: Problem = {
  type: 'urn:wunsch:problem:http:offline',
  title: 'Offline',
  status: 0,
  code: 'http/offline',
  detail: 'The server does not answer. What you typed is kept here; try again when it is back.',
  errors: [],
};

async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  key?: string,
): Promise<{ data: T; replayed: boolean }> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: {
        ...(body === undefined
          ? {}
          : { 'content-type': body instanceof Blob ? 'application/octet-stream' : 'application/json' }),
        ...(key === undefined ? {} : { 'idempotency-key': key }),
      },
      ...(body === undefined ? {} : { body: body instanceof Blob ? body : JSON.stringify(body) }),
    });
  } catch {
    throw new ApiError(offline);
  }
  const isJson = response.headers.get('content-type')?.includes('json') ?? false;
  const data: unknown = isJson ? await response.json() : null;
  if (!response.ok) throw new ApiError(isJson ? (data as Problem) : { ...offline, status: response.status });
  return { data: data as T, replayed: response.headers.get('idempotent-replay') === 'true' };
}

/** What the server says at an address of the list. */
export const getJson = async <P extends string>(path: ReadPath<P>): Promise<AnswerOf<P>> =>
  (await call<AnswerOf<P>>('GET', path)).data;

/** Asks for a calculation: sends a body, changes nothing, so nothing on screen is fetched again. */
export const ask = async <P extends string>(path: AskPath<P>, body: unknown): Promise<AskedOf<P>> =>
  (await call<AskedOf<P>>('POST', path, body)).data;

/** Keys of writes that got no answer, by what was sent: whoever presses again enters it once. */
const unanswered = new Map<string, string>();

/** Whether nobody knows what became of a write. */
const isUnanswered = (reason: unknown): boolean =>
  reason instanceof ApiError && (reason.problem.status === 0 || reason.problem.status >= 500);

/**
 * Sends a write; sent again because no answer came, it is entered once.
 *
 * @param key of a draft, which outlives the screen; left out, the same thing to the same place has the same key until
 *   there is an answer
 */
export async function send<M extends 'POST' | 'PUT' | 'DELETE', P extends string>(
  method: M,
  path: WritePath<M, P>,
  body?: unknown,
  key?: string,
): Promise<{ data: WrittenOf<M, P>; replayed: boolean }> {
  // Of a file nobody says that it is the same as before.
  const what = key === undefined && !(body instanceof Blob) ? `${method} ${path} ${JSON.stringify(body)}` : '';
  const own = key ?? unanswered.get(what) ?? newKey();
  try {
    const answer = await call<WrittenOf<M, P>>(method, path, body, own);
    unanswered.delete(what);
    void refresh();
    return answer;
  } catch (reason) {
    if (what !== '' && isUnanswered(reason)) unanswered.set(what, own);
    else unanswered.delete(what);
    throw reason;
  }
}

/** Adds one of a list, or changes the one that has this id. */
export const sendOne = (
  list: `/api/workshop/${'machines' | 'materials' | 'routes'}`,
  id: string | undefined,
  body: unknown,
  key: string,
): Promise<unknown> =>
  id === undefined || id === '' ? send('POST', list, body, key) : send('PUT', `${list}/${id}`, body);

/** Fetches everything on screen again. */
export const refresh = (): Promise<unknown> => mutate((key) => typeof key === 'string' && key.startsWith('/api/'));

/**
 * What the server says at an address, asked again when something was entered or the screen is looked at again.
 *
 * @param everyMs asked again so often besides
 */
export function useApi<P extends string>(path: ReadPath<P> | null, everyMs = 0): SWRResponse<AnswerOf<P>, ApiError> {
  return useSWR<AnswerOf<P>, ApiError>(path, () => getJson<P>(path as ReadPath<P>), {
    keepPreviousData: false,
    revalidateOnFocus: true,
    dedupingInterval: 400,
    refreshInterval: everyMs,
  });
}
