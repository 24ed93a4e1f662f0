import { type ErrorCode, errorBodySchema } from '@heuristor/contracts';
import { type z } from 'zod';

/** A refusal of the server, in its own words. */
export class ApiError extends Error {
  override readonly name = 'ApiError';

  constructor(
    readonly code: ErrorCode | 'unreachable',
    message: string,
    readonly current?: unknown,
  ) {
    super(message);
  }
}

async function send(method: string, path: string, body?: BodyInit, type?: string): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      body,
      headers: type === undefined ? {} : { 'Content-Type': type },
    });
  } catch {
    throw new ApiError(
      'unreachable',
      'Heuristor does not answer. Is it still running? What was recorded is kept.',
    );
  }
  if (response.ok) return response;
  const parsed = errorBodySchema.safeParse(await response.json().catch(() => null));
  if (!parsed.success)
    throw new ApiError('fault', `The server answered ${response.status} without a reason.`);
  const { code, message, current } = parsed.data.error;
  throw new ApiError(code, message, current);
}

const json = (body: unknown) => [JSON.stringify(body), 'application/json'] as const;

export async function getJson<S extends z.ZodType>(path: string, schema: S): Promise<z.output<S>> {
  return schema.parse(await (await send('GET', path)).json());
}

export async function getNumbers(path: string): Promise<Float64Array> {
  return new Float64Array(await (await send('GET', path)).arrayBuffer());
}

/** A request whose answer is of no interest, or is checked by `schema`. */
export async function request(
  method: 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<unknown> {
  const response = await (body === undefined ? send(method, path) : send(method, path, ...json(body)));
  return response.status === 204 ? null : response.json();
}

export async function postFile(path: string, file: Blob): Promise<unknown> {
  return (await send('POST', path, file, 'application/octet-stream')).json();
}

/** The sentence to show for whatever was thrown. */
export const sentenceOf = (error: unknown): string =>
  error instanceof ApiError
    ? error.message
    : 'Something went wrong on this page. Reload it; nothing recorded is lost.';
