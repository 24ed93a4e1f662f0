import { type SeriesRef, parseUnit, printedUnit } from '@heuristor/core';
import { useFrontRun, usePicture } from '../session/context';

/** The unit of a series in the run in front. */
export function useUnitOf(of: SeriesRef | null): string {
  const front = useFrontRun();
  const derived = usePicture((picture) =>
    of?.startsWith('entry:') === true
      ? picture.outcomes[front?.id ?? '']?.[of.slice('entry:'.length)]
      : undefined,
  );
  if (derived?.kind === 'series') return printedUnit(derived.unit);
  const channel = front?.channels.find(({ key }) => `channel:${key}` === of);
  return channel === undefined ? '' : printedUnit(parseUnit(channel.unit));
}
