import { type RegionLine, type SeriesRef } from '@heuristor/core';
import { Button } from 'react-bootstrap';
import { useBench } from '../stores/bench';
import { useWorkings } from '../stores/workings';
import { type Rendered } from '../workers/protocol';
import { addOnRegion, offers, removeLine } from './edits';
import { pixelOf } from './geometry';
import { abscissaOfRuns, namesOf } from './names';

const offersWidth = 440;

/** What can be worked out on the selected region, right beside it. */
export function Offers({
  region,
  rendered,
  width,
}: {
  region: RegionLine;
  rendered: Rendered;
  width: number;
}) {
  const workings = useWorkings((state) => state.workings);
  const runs = useBench((state) => state.runs);
  const wanted = useBench((state) => state.selectedSeries);
  const nameOf = namesOf(workings, abscissaOfRuns(runs));
  const choices = rendered.traces.map(({ reference }) => reference).filter((reference) => reference !== null);
  const series = choices.find((choice) => choice === wanted) ?? choices[0];
  if (series === undefined) return null;
  const left = Math.max(
    Math.min(pixelOf(region.start, rendered.viewport, width) + 8, width - offersWidth),
    0,
  );
  return (
    <div
      className="offers"
      style={{ left }}
      role="toolbar"
      aria-label={`Work out on region ${region.letter}`}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <select
        className="form-select"
        aria-label="Series"
        value={series}
        onChange={(event) => useBench.setState({ selectedSeries: event.target.value as SeriesRef })}
      >
        {choices.map((choice) => (
          <option key={choice} value={choice}>
            {nameOf(choice)}
          </option>
        ))}
      </select>
      {offers.map(({ key, title }) => (
        <Button key={key} variant="bare" onClick={() => addOnRegion(key, region.id, series)}>
          {title}
        </Button>
      ))}
      <Button
        variant="bare"
        aria-label={`Remove region ${region.letter}`}
        title="Remove the region"
        onClick={() => removeLine(region.id)}
      >
        <i className="bi bi-trash3" aria-hidden />
      </Button>
      <Button
        variant="bare"
        aria-label="Close the offers"
        onClick={() => useBench.setState({ selectedRegion: null })}
      >
        <i className="bi bi-x-lg" aria-hidden />
      </Button>
    </div>
  );
}
