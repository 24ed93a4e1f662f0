import { type LeftOutCount, type Run, leftOutCountSchema } from '@heuristor/contracts';
import { z } from 'zod';
import { getJson } from '../api/client';

/** Of more runs than this only the last are asked: each is read whole for it. */
const mostAsked = 40;

/** How many readings of runs are no measurement, by run; one run after the other. @throws ApiError */
export async function leftOutOf(runs: readonly Run[]): Promise<Map<string, LeftOutCount[]>> {
  const found = new Map<string, LeftOutCount[]>();
  for (const { id, state } of runs.slice(-mostAsked))
    if (state === 'ended') found.set(id, await getJson(`/runs/${id}/left-out`, z.array(leftOutCountSchema)));
  return found;
}
