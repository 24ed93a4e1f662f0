import { bothWays } from '@heuristor/core';
import { shortText } from '../../ui/numberText';
import { type CheckKindHere, met, notYet } from './check';

/** So many times its uncertainty a slope is told from none. */
const sure = 2;

export const level: CheckKindHere = {
  kind: 'level',
  title: 'The track is level',
  needsChannel: true,
  number: { label: 'at most', usual: 0.02, unit: 'm/s2' },
  isOnce: true,
  sentence: (_, amount) =>
    `The track is level: pushed once each way in one run, it is pulled to neither side by more than ${amount}`,
  stateOf: (check, bench) => {
    const run = bench.runs.at(-1);
    if (run === undefined || run.state === 'recording') return notYet();
    const readings = bench.readingsOf(run, check.channel);
    if (readings === null) return notYet();
    const found = bothWays(readings.times, readings.values);
    if (found === null) return notYet(`In ${run.name} it does not run freely both ways.`);
    const most = check.number ?? 0;
    const size = Math.abs(found.along);
    if (size <= Math.max(most, sure * found.uncertainty)) return met;
    const way = found.along > 0 ? 'towards larger' : 'towards smaller';
    return notYet(
      `In ${run.name} it is pulled ${way} ${check.channel} by ${shortText(size, 2)} m/s². Lift the end to which it is pulled.`,
    );
  },
};
