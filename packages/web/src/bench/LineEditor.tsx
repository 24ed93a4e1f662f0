import {
  type Line,
  type NameOf,
  type RelationKey,
  type SeriesRef,
  lineRef,
  relationKeys,
  relationOf,
} from '@heuristor/core';
import { useId } from 'react';
import { useBench } from '../stores/bench';
import { changeLine, useWorkings } from '../stores/workings';
import { seriesChoices } from './names';

/** What a line speaks of, chosen anew: series, axis, region, relation. */
export function LineEditor({ line, nameOf }: { line: Exclude<Line, { kind: 'region' }>; nameOf: NameOf }) {
  const id = useId();
  const workings = useWorkings((state) => state.workings);
  const runs = useBench((state) => state.runs);
  const choices = seriesChoices(runs, workings).filter((choice) => choice !== lineRef(line.id));
  const regions = workings.lines.filter((other) => other.kind === 'region');
  const seriesSelect = (field: 'of' | 'against', value: SeriesRef, options: SeriesRef[]) => (
    <select
      id={`${id}-${field}`}
      className="form-select"
      value={value}
      onChange={(event) => changeLine(line.id, { [field]: event.target.value as SeriesRef })}
    >
      {options.map((option) => (
        <option key={option} value={option}>
          {nameOf(option)}
        </option>
      ))}
    </select>
  );
  return (
    <div className="line-edit">
      {line.kind === 'fit' && (
        <>
          <label htmlFor={`${id}-relation`}>Relation</label>
          <select
            id={`${id}-relation`}
            className="form-select"
            value={line.relation}
            onChange={(event) => changeLine(line.id, { relation: event.target.value as RelationKey })}
          >
            {relationKeys.map((key) => (
              <option key={key} value={key}>
                {relationOf(key).title}: {relationOf(key).formula}
              </option>
            ))}
          </select>
        </>
      )}
      <label htmlFor={`${id}-of`}>Of</label>
      {seriesSelect('of', line.of, choices)}
      {'against' in line && (
        <>
          <label htmlFor={`${id}-against`}>Against</label>
          {seriesSelect('against', line.against, ['t', ...choices])}
        </>
      )}
      {'region' in line && (
        <>
          <label htmlFor={`${id}-region`}>Region</label>
          <select
            id={`${id}-region`}
            className="form-select"
            value={line.region ?? ''}
            onChange={(event) =>
              changeLine(line.id, { region: event.target.value === '' ? null : event.target.value })
            }
          >
            <option value="">the whole run</option>
            {regions.map((region) => (
              <option key={region.id} value={region.id}>
                {region.letter} {region.name}
              </option>
            ))}
          </select>
        </>
      )}
    </div>
  );
}
