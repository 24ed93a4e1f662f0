import { useEffect, useState } from 'react';
import { getNumbers } from '../../api/client';
import { useInvestigationDocuments } from '../../investigation/context';
import { type SeenRun } from '../../runs/seenRun';
import { threadOf } from '../../sensors/devices';
import { useQuantities } from '../../sensors/useQuantities';
import { countedRuns } from '../../trials/counted';
import { type CheckedBench } from './check';

type Readings = { times: Float64Array; values: Float64Array };

/** Readings that were fetched, by run and channel; those of a run that has ended never change. */
const fetched = new Map<string, Readings | 'asked'>();
const mostFetched = 8;
const lookMilliseconds = 250;

/** What checks look at, looked at anew a few times a second as long as readings can still tick something. @param isLooked whether they can */
export function useBench(isLooked: boolean): CheckedBench {
  const quantities = useQuantities();
  const { plan, runs } = useInvestigationDocuments((documents) => documents);
  const [, setBeat] = useState(0);
  useEffect(() => {
    if (!isLooked) return undefined;
    const timer = setInterval(() => setBeat((beat) => beat + 1), lookMilliseconds);
    return () => clearInterval(timer);
  }, [isLooked]);
  return {
    quantities,
    plan,
    runs: countedRuns(runs),
    threadOf: ({ stream, index }) => threadOf(stream.handle, index),
    readingsOf,
  };
}

function readingsOf(run: SeenRun, key: string): Readings | null {
  const channel = run.channels.find((one) => one.key === key);
  if (channel === undefined) return null;
  const place = `${run.id}/${key}`;
  const known = fetched.get(place);
  if (known !== undefined) return known === 'asked' ? null : known;
  const [oldest] = fetched.keys();
  if (fetched.size >= mostFetched) fetched.delete(oldest);
  fetched.set(place, 'asked');
  const { sampling } = channel;
  void Promise.all([
    getNumbers(`/channels/${channel.id}/values`),
    sampling.kind === 'regular' ? null : getNumbers(`/channels/${channel.id}/times`),
  ]).then(
    ([values, times]) => {
      const at = (i: number) => (sampling.kind === 'regular' ? sampling.start + i * sampling.interval : NaN);
      fetched.set(place, { values, times: times ?? values.map((_, i) => at(i)) });
    },
    // Who looks next tries again.
    () => fetched.delete(place),
  );
  return null;
}
