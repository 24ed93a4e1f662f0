import { type CheckKind, type GuideCheck, type Plan } from '@heuristor/contracts';
import { type SeenRun } from '../../runs/seenRun';
import { type Thread } from '../../sensors/devices';
import { type Quantity } from '../../sensors/sensors';

/** What a check can look at. */
export interface CheckedBench {
  quantities: readonly Quantity[];
  plan: Plan;
  /** Runs that count. */
  runs: readonly SeenRun[];
  /** The last seconds of a quantity. */
  threadOf(quantity: Quantity): Thread;
  /** Times in seconds and values of a channel of a run, once they have been fetched; null until then. */
  readingsOf(run: SeenRun, channel: string): { times: Float64Array; values: Float64Array } | null;
}

/** How a check stands: whether it is met, and what is in the way, '' for nothing that is to be said. */
export interface CheckState {
  isMet: boolean;
  says: string;
}

/** What pages have to know of a kind of check. */
export interface CheckKindHere {
  kind: CheckKind;
  /** As it is called where one is added. */
  title: string;
  needsChannel: boolean;
  /** The number that it asks for; null where it asks for none. */
  number: { label: string; usual: number; unit: 'of the channel' | 'Hz' | '' | 'm/s2' } | null;
  /** Whether it is met by something that passes, and stays so. */
  isOnce: boolean;
  /** What is asked for. @param symbol of the channel @param amount the number with its unit */
  sentence(symbol: string, amount: string): string;
  stateOf(check: GuideCheck, bench: CheckedBench): CheckState;
}

/** The quantity that a check looks at; undefined where nothing measures it. */
export const quantityOf = ({ channel }: GuideCheck, { quantities }: CheckedBench): Quantity | undefined =>
  quantities.find(({ key }) => key === channel);

export const notMeasured = ({ channel }: GuideCheck): CheckState => ({
  isMet: false,
  says: `No sensor here measures ${channel}.`,
});
export const met: CheckState = { isMet: true, says: '' };
export const notYet = (says = ''): CheckState => ({ isMet: false, says });
