import { halfWidth } from '../results/quantity';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type NamedResult } from '../workings/outcome';
import { type ChannelData, type Condition } from '../workings/run';

/** One result of a sheet over one run. @throws Error where the sheet refuses it */
export function resultIn(
  entries: readonly Entry[],
  channels: ChannelData[],
  id: string,
  key?: string,
  conditions?: readonly Condition[],
): NamedResult {
  const outcome = evaluate(
    { entries: [...entries] },
    { id: 'r', channels, ...(conditions === undefined ? {} : { conditions }) },
  ).outcomes.get(id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  const found = outcome.results.find((result) => (key === undefined ? result.main : result.key === key));
  if (found === undefined) throw new Error(`no ${key ?? 'main result'}`);
  return found;
}

/** Share of repetitions in which the interval of a result holds the truth. */
export function coverageOf(
  entries: readonly Entry[],
  truth: number,
  make: (repetition: number) => ChannelData[],
  { id = 'q', key, repetitions = 1000 }: { id?: string; key?: string; repetitions?: number } = {},
): number {
  let inside = 0;
  for (let i = 0; i < repetitions; i++) {
    const { quantity } = resultIn(entries, make(i), id, key);
    if (Math.abs(quantity.value - truth) <= (halfWidth(quantity) ?? 0)) inside++;
  }
  return inside / repetitions;
}
