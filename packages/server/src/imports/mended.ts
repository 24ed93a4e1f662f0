import { type ImportNames } from '@heuristor/contracts';
import { parseUnit, ucumCode } from '@heuristor/core';
import { Failure } from '../failure';
import { type ReadAnswer } from './task';

type ReadRuns = Extract<ReadAnswer, { kind: 'read' }>['runs'];

/**
 * The runs of a file with the names and units that the teacher gave them in the preview; numbers stay what they were read as.
 * @throws Failure where the names are not those of this file, or two columns of a run are called the same
 */
export function mended(runs: ReadRuns, names: ImportNames | undefined): ReadRuns {
  if (names === undefined) return runs;
  const fits =
    names.length === runs.length &&
    names.every(({ channels }, i) => channels.length === runs[i].channels.length);
  if (!fits)
    throw new Failure(
      'invalid-request',
      'These names belong to another file. Close the preview and choose the file again.',
    );
  return runs.map(({ channels, begins, since }, i) => {
    const { name, channels: wanted } = names[i];
    const seen = new Set<string>();
    for (const { name: symbol } of wanted) {
      if (seen.has(symbol))
        throw new Failure(
          'invalid-request',
          `Two columns of “${name}” are called ${symbol}. Give each a name of its own.`,
        );
      seen.add(symbol);
    }
    return {
      name,
      begins,
      since,
      channels: channels.map((channel, c) => ({
        ...channel,
        name: wanted[c].name,
        unit: ucumCode(parseUnit(wanted[c].unit)),
      })),
    };
  });
}
