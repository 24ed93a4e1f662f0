import { printedUnit } from '@heuristor/core';
import { type CSSProperties } from 'react';
import { LineSample } from '../runs/LineSample';
import { LiveReading } from '../sensors/LiveReading';
import { ResultText } from '../ui/ResultText';
import { writeResult } from '../ui/numberText';
import { type Tile, type TileValue } from './tiles';

/** Figures that a live reading needs at most: sign, three before and four behind the point, its unit. */
const liveFigures = 11;

function figuresOf({ value, halfWidth, roundTo, unit }: TileValue): number {
  const written = writeResult(value, halfWidth ?? roundTo);
  const uncertainty = halfWidth === null ? null : written.uncertainty;
  return (
    written.value.length +
    (uncertainty === null ? 0 : uncertainty.length + 3) +
    (written.exponent === 0 ? 0 : 7) +
    printedUnit(unit).length +
    1
  );
}

/** A tile in digits as large as it allows: how many figures stand side by side decides. */
export function TileFace({ tile: { name, about, style, shows } }: { tile: Tile }) {
  const count = shows.kind === 'live' ? liveFigures : Math.max(figuresOf(shows.value), 6);
  return (
    <div className="digit-tile" style={{ '--figures': count } as CSSProperties}>
      <span className="digit-name">
        {name} {style !== null && <LineSample style={style} />} <span className="quiet">{about}</span>
      </span>
      {shows.kind === 'live' ? (
        <LiveReading
          handle={shows.quantity.stream.handle}
          index={shows.quantity.index}
          channel={shows.quantity.channel}
          rate={shows.quantity.stream.liveRate}
        />
      ) : (
        <div className="reading">
          <ResultText result={shows.value} />
        </div>
      )}
    </div>
  );
}
