import { type ChannelFields, type Plan, type Run } from '@heuristor/contracts';
import { randomUUID } from 'node:crypto';
import { type Logger } from 'pino';
import { Failure } from '../failure';
import { keepBindings } from '../services/investigations';
import { addRun, findRun } from '../services/runs';

const retryMilliseconds = 500;

interface Entered {
  investigationId: string;
  plan: Plan;
  channels: ChannelFields[];
  /** The process that records it. */
  recordedBy: string;
}

/**
 * Enters a run into the database. One that began by itself has nobody who could press again: it is tried until the database is
 * back.
 * @param mayRetry whether it is to be tried again
 * @throws whatever the database says, where it is not
 */
export async function enteredRun(
  { investigationId, plan, channels, recordedBy }: Entered,
  log: Logger,
  mayRetry: () => boolean,
): Promise<Run> {
  // With an id of its own, a run whose entering was only not answered is not entered twice.
  const id = randomUUID();
  for (;;) {
    try {
      await keepBindings(investigationId, plan.bindings);
      return (
        (await findRun(id)) ??
        (await addRun({
          id,
          investigationId,
          origin: 'recorded',
          state: 'recording',
          recordedBy,
          plan,
          channels: channels.map(datedAtStart),
        }))
      );
    } catch (error) {
      if (!mayRetry() || error instanceof Failure) throw error;
      log.warn(
        { investigationId, error: String(error) },
        'A run that has begun cannot be entered yet; it is tried again',
      );
      await new Promise((resolve) => setTimeout(resolve, retryMilliseconds));
    }
  }
}

/** A zero that was taken at the start of a run has that run's date. */
function datedAtStart(channel: ChannelFields): ChannelFields {
  const { applied } = channel;
  if (applied?.zeroedAtStart !== true || applied.zero === null) return channel;
  return { ...channel, applied: { ...applied, zero: { ...applied.zero, at: new Date().toISOString() } } };
}
