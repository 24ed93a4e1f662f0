interface Props {
  x: number;
  y: number;
  flash: boolean;
  angle?: number;
}

/** A motion sensor with its lamp, which lights when the bench asks it to flash. */
export function SensorDrawing({ x, y, flash, angle = 0 }: Props) {
  return (
    <g transform={`translate(${x} ${y}) rotate(${angle})`}>
      <rect x="-26" y="-8" width="52" height="20" rx="5" fill="var(--solid)" />
      <ellipse cx="0" cy="-8" rx="15" ry="4" fill="var(--quiet)" />
      <circle
        cx="18"
        cy="3"
        r="4"
        fill={flash ? 'var(--region-yellow)' : 'var(--lamp-off)'}
        stroke={flash ? 'var(--region-yellow-edge)' : 'none'}
        strokeWidth="2"
      />
    </g>
  );
}
