import { type Request } from 'express';
import { type z } from 'zod';
import { idSchema } from '@heuristor/contracts';
import { Failure } from '../failure';

/** The body of a request in its checked form. @throws Failure that names the first fault */
export function bodyOf<S extends z.ZodType>(schema: S, request: Request): z.output<S> {
  const parsed = schema.safeParse(request.body);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Failure('invalid-request', `${issue.path.join('.') || 'The request'}: ${issue.message}`);
}

/** A UUID in the path. @throws Failure where it is none: nothing can be found under it */
export function idOf(request: Request, name = 'id'): string {
  const parsed = idSchema.safeParse(request.params[name]);
  if (!parsed.success)
    throw new Failure(
      'not-found',
      `“${String(request.params[name]).slice(0, 60)}” is not the id of anything.`,
    );
  return parsed.data;
}

/** A text in the path, without what no text of ours holds. @throws Failure */
export function textOf(request: Request, name: string): string {
  const text = String(request.params[name]);
  if (text.includes('\u0000'))
    throw new Failure('not-found', 'There is nothing at an address with the character NUL.');
  return text;
}

/** A whole number from 0 on in the query, 0 where there is none. @throws Failure */
export function indexOf(request: Request, name: string): number {
  const text = request.query[name];
  if (text === undefined) return 0;
  const index = typeof text === 'string' && text !== '' ? Number(text) : NaN;
  if (!Number.isInteger(index) || index < 0 || index > 2 ** 31 - 1)
    throw new Failure('invalid-request', `${name} must be a whole number from 0 to 2147483647.`);
  return index;
}
