import { z } from 'zod';
import { joinUpdates } from '../services/notebooks';
import { type JobKind } from './jobKind';

const task = z.object({ notebook: z.uuid() });

/** A notebook in which much was written: its many rows become one, so that it opens fast. */
export const joinNotebook: JobKind<z.infer<typeof task>> = {
  key: 'join-notebook',
  task,
  attempts: 3,
  work: ({ notebook }) => joinUpdates(notebook),
};
