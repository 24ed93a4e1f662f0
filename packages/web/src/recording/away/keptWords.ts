import { type AwayRun } from '@heuristor/contracts';
import { format, formatDistanceStrict } from 'date-fns';
import { readingsWord } from '../../ui/readingsWord';

/** When something was, with the day where it was not today. */
export function whenWords(at: string, now: number): string {
  const date = new Date(at);
  const isToday = format(date, 'yyyy-MM-dd') === format(new Date(now), 'yyyy-MM-dd');
  return format(date, isToday ? 'HH:mm:ss' : 'd MMM HH:mm');
}

/** Up to ten minutes are counted in seconds, as the length of a run is typed; beyond, what is full is told. */
const elapsedWords = (from: number, now: number) =>
  now - from < 600_000
    ? `${Math.max(Math.floor((now - from) / 1000), 0)} s`
    : formatDistanceStrict(from, now, { roundingMethod: 'floor' });

/** What a run that a device keeps is doing, or has come to. */
export function keptWords(run: AwayRun, isPresent: boolean, now: number): string {
  const { state, begunAt, clockLost, count, seconds } = run;
  const since = begunAt === null ? '' : ` since ${whenWords(begunAt, now)}`;
  const from = begunAt === null ? '' : ` from ${whenWords(begunAt, now)}`;
  const lost = clockLost ? ' The device lost its clock: when it began is not known.' : '';
  switch (state) {
    case 'waiting':
      return `Waits to begin. It may be carried off.`;
    case 'recording': {
      const ago = begunAt === null ? '' : `, ${elapsedWords(new Date(begunAt).getTime(), now)}`;
      const length = seconds === null ? '' : ` of ${seconds} s`;
      return isPresent
        ? `Still recording${since}${ago}${length}: ${readingsWord(count)}. It may be carried off.${lost}`
        : `Carried off, and recording${since} when it was last here. Bring it back to fetch the run.${lost}`;
    }
    case 'finished':
      return count === 0
        ? `Finished, and empty: nothing was recorded.${lost}`
        : `Finished: ${readingsWord(count)}${from}.${lost}`;
    case 'full':
      return `Its memory is full: ${readingsWord(count)}${from}.${lost}`;
    case 'stopped':
      return `Stopped early, for example because its battery was empty: ${readingsWord(count)}${from}.${lost}`;
  }
}

/** The same in a few words, for the card of the sensor. */
export function shortKeptWords(runs: readonly AwayRun[]): string | null {
  const counted = runs.filter(({ discarded }) => !discarded);
  if (counted.length === 0) return null;
  const active = counted.find(({ state }) => state === 'recording' || state === 'waiting');
  if (active !== undefined)
    return active.state === 'waiting' ? 'waits to record by itself' : 'records by itself';
  return counted.length === 1 ? 'keeps a run' : `keeps ${counted.length} runs`;
}
