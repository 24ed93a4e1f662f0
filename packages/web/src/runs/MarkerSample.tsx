import { markerShape } from './markerShape';
import { runStyle } from './runStyles';

const reach = 4.5;

/** The marker of a run's points, with its colour. */
export function MarkerSample({ style }: { style: number }) {
  const { paint } = runStyle(style);
  const shape = markerShape(style);
  const at = ([x, y]: readonly [number, number]) => `${reach * x},${reach * y}`;
  return (
    <svg width="14" height="14" viewBox="-7 -7 14 14" fill={paint} stroke={paint} aria-hidden>
      {shape.kind === 'circle' && <circle r={reach} stroke="none" />}
      {shape.kind === 'filled' && <polygon points={shape.points.map(at).join(' ')} stroke="none" />}
      {shape.kind === 'strokes' &&
        shape.ends.map(([x, y]) => (
          <line
            key={`${x} ${y}`}
            x1={-reach * x}
            y1={-reach * y}
            x2={reach * x}
            y2={reach * y}
            strokeWidth="1.75"
          />
        ))}
    </svg>
  );
}
