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
      <rect x="-26" y="-8" width="52" height="20" rx="5" fill="#0F2A33" />
      <ellipse cx="0" cy="-8" rx="15" ry="4" fill="#566A6C" />
      <circle
        cx="18"
        cy="3"
        r="4"
        fill={flash ? '#F6DD85' : '#3D565D'}
        stroke={flash ? '#B38600' : 'none'}
        strokeWidth="2"
      />
    </g>
  );
}
