import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type NameOf, type SeriesRef, channelRef, lineRef } from '@heuristor/core';
import { presentRuns } from '../stores/bench';

/** How series are called on this bench. */
export function namesOf({ lines }: WorkingsDocument, abscissa: string): NameOf {
  return (reference) => {
    if (reference === 't') return abscissa;
    const name = reference.slice(reference.indexOf(':') + 1);
    if (reference.startsWith('channel:')) return name;
    return lines.find(({ id }) => id === name)?.name ?? 'a removed series';
  };
}

/** Every series there is: channels of any run that is present, then derived ones in the order of the sheet. */
export function seriesChoices(runs: readonly Run[], { lines }: WorkingsDocument): SeriesRef[] {
  const keys = new Set(presentRuns(runs).flatMap(({ channels }) => channels.map(({ key }) => key)));
  return [
    ...[...keys].map(channelRef),
    ...lines.filter(({ kind }) => kind === 'derivative' || kind === 'integral').map(({ id }) => lineRef(id)),
  ];
}

/** What the abscissa of the present runs is called. */
export const abscissaOfRuns = (runs: readonly Run[]): string =>
  presentRuns(runs).some(({ channels }) => channels.some(({ timeUnit }) => timeUnit === 's')) ||
  presentRuns(runs).length === 0
    ? 't'
    : 'reading';
