import { memo } from 'react';
import { runStyle } from './runStyles';

/** A short piece of a run's line: its colour and dash. */
export const LineSample = memo(function LineSample({ style, width = 28 }: { style: number; width?: number }) {
  const { paint, dash } = runStyle(style);
  return (
    <svg width={width} height="8" aria-hidden>
      <line
        x1="0"
        y1="4"
        x2={width}
        y2="4"
        stroke={paint}
        strokeWidth="2.5"
        strokeDasharray={dash.join(' ')}
      />
    </svg>
  );
});
