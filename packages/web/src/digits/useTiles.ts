import { type SeriesRef, resultRef } from '@heuristor/core';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import {
  useDocuments,
  useFrontRun,
  useInvestigation,
  useNames,
  usePicture,
  useResultNames,
} from '../investigation/context';
import { gateSetting } from '../recording/gate/gate';
import { useQuantities } from '../sensors/useQuantities';
import { type ShownOutcome } from '../workers/protocol';
import { type Tile } from './tiles';

/** All that can be shown large now, the likely first: the last pass of a gate, live values, results; and what the cursor reads. */
export function useTiles(): Tile[] {
  const session = useInvestigation();
  const front = useFrontRun();
  const nameOf = useNames();
  const names = useResultNames();
  const workings = useDocuments((documents) => documents.workings);
  const live = useQuantities().filter(({ stream }) => stream.edges == null);
  const outcomes = usePicture(
    useShallow((picture): Record<string, ShownOutcome> => picture.outcomes[front?.id ?? ''] ?? {}),
  );
  const traced = usePicture(
    useShallow(({ traces }) =>
      traces.flatMap(({ quantities }) => quantities.map(({ reference }) => reference)),
    ),
  );
  const read = useStore(session.cursor.state, (state) => state.read);
  const style = front?.style ?? 0;
  const about = front?.name ?? '';
  const entries = Object.entries(outcomes);
  const setting = gateSetting(workings);
  const gate = (setting?.entries ?? []).flatMap(({ id, name }, i): Tile[] => {
    const outcome = outcomes[id];
    if (outcome?.kind !== 'series' || outcome.passes === undefined) return [];
    const { values, uncertainties, mean } = outcome.passes;
    const common = { group: 'Gate', about, style, entryId: id, isUsual: i === 0 } as const;
    const { unit } = outcome;
    const last = values.length - 1;
    const tile = (which: string, value: number, half: number | null): Tile => ({
      ...common,
      key: `pass:${which}:${id}`,
      title: which === 'last' ? `${name} of the last pass` : `mean of ${name} over all passes`,
      name: `${name}, ${which === 'last' ? 'last pass' : `mean of ${values.length}`}`,
      shows: { kind: 'value', value: { value, halfWidth: half, roundTo: null, unit } },
    });
    return [
      ...(last < 0 ? [] : [tile('last', values[last], uncertainties[last] > 0 ? uncertainties[last] : null)]),
      ...(mean === null || values.length < 2 ? [] : [tile('mean', mean.value, mean.halfWidth)]),
    ];
  });
  const readings = live.map((quantity): Tile => ({
    key: `live:${quantity.key}`,
    group: 'Live',
    title: `${quantity.key} of ${quantity.device.model} ${quantity.device.code} / ${quantity.channel.unit}`,
    name: quantity.key,
    about: `${quantity.device.model} ${quantity.device.code}`,
    style: null,
    shows: { kind: 'live', quantity },
    entryId: null,
    isUsual: true,
  }));
  const results = entries.flatMap(([id, outcome]): Tile[] =>
    outcome.kind !== 'results'
      ? []
      : outcome.results.map((result): Tile => {
          const key = resultRef(id, result.key);
          const { value, halfWidth, roundTo, unit } = result;
          return {
            key,
            group: 'Results of the run in front',
            title: names[key] ?? result.name,
            name: names[key] ?? result.name,
            about,
            style,
            shows: { kind: 'value', value: { value, halfWidth, roundTo, unit } },
            entryId: id,
            isUsual: result.main,
          };
        }),
  );
  const here = read?.runs.find(({ runId }) => runId === front?.id);
  const cursor = [...new Set(traced)].flatMap((reference: SeriesRef): Tile[] => {
    const value = here?.values[reference];
    if (value === undefined) return [];
    return [
      {
        key: `cursor:${reference}`,
        group: 'Cursor',
        title: `${nameOf(reference)} at the cursor`,
        name: `${nameOf(reference)} at the cursor`,
        about,
        style,
        shows: {
          kind: 'value',
          value: {
            value: value.y,
            halfWidth: null,
            roundTo: value.noise ?? (Math.abs(value.y) * 1e-4 || 1e-4),
            unit: value.unit,
          },
        },
        entryId: null,
        isUsual: false,
      },
    ];
  });
  return [...gate, ...readings, ...results, ...cursor];
}

/** With nothing chosen, so many are shown. */
const usualCount = 2;

/** What is shown where nothing was chosen. */
export const usualKeys = (tiles: readonly Tile[]): string[] =>
  tiles
    .filter(({ isUsual }) => isUsual)
    .slice(0, usualCount)
    .map(({ key }) => key);
