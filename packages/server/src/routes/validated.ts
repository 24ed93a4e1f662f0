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

/** A text in the path. */
export const textOf = (request: Request, name: string): string => String(request.params[name]);
