import { type GuideSetting, usualPlan } from '@heuristor/contracts';

type Plan = NonNullable<GuideSetting['plan']>;

const { way, spot, pace, begin, end, times } = usualPlan;
const usual: Plan = { way, spot, pace, begin, end, times };

const level = (quantity: string, direction: 'rise' | 'fall', value: number, unit: string) =>
  ({ quantity, of: 'reading', direction, value, unit }) as const;

/** Runs of some seconds that begin when they are begun. */
export const forSeconds = (seconds: number): Plan => ({ ...usual, end: { kind: 'after', seconds } });

/** Runs of some seconds that begin where a reading passes a level. */
export const fromLevel = (
  [quantity, direction, value, unit]: Parameters<typeof level>,
  seconds: number,
  keptSeconds = 0,
): Plan => ({
  ...usual,
  begin: { kind: 'level', level: level(quantity, direction, value, unit), keptSeconds },
  end: { kind: 'after', seconds },
});

/** Single readings against a value that is typed. */
export const spotReadings = (): Plan => ({ ...usual, way: 'spot' });

/** How a channel is read. @param zeroAtStart whether every run begins at zero; null where it stays as it is */
export const readAt = (channel: string, rate: number | null, zeroAtStart: boolean | null = null) => ({
  channel,
  rate,
  zeroAtStart,
});
