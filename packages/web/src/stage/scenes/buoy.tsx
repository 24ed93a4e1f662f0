import { useRef } from 'react';
import { type DrawingProps, type Scene } from '../scene';
import { SensorDrawing } from '../SensorDrawing';
import { useGrab } from '../useGrab';

const pixelsPerMetre = 260;
const restY = 190;
const beamY = 26;
const coils = 14;

/** The spring as a zigzag from the beam to the buoy; stiffer springs are drawn with a thicker wire. */
function springPath(bottom: number): string {
  const [top, end] = [beamY + 14, bottom - 12];
  const points = Array.from({ length: coils * 2 + 1 }, (_, i) => {
    const y = top + ((end - top) * i) / (coils * 2);
    return `${200 + (i === 0 || i === coils * 2 ? 0 : i % 2 === 0 ? -13 : 13)},${y}`;
  });
  return `M200,${beamY} L${points.join(' L')} L200,${bottom}`;
}

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const x = values.x ?? 0;
  const y = restY - x * pixelsPerMetre;
  const grab = useGrab({
    svg,
    positionAt: (_x, pointY) => (restY - pointY) / pixelsPerMetre,
    position: x,
    keyStep: -0.01,
    act,
  });
  const size = 20 + 18 * Math.cbrt(values.mass ?? 0.5);
  return (
    <svg
      ref={svg}
      className="scene"
      viewBox="0 0 400 400"
      role="group"
      aria-label="Buoy hanging from its spring"
    >
      <rect x="110" y={beamY - 12} width="180" height="12" rx="3" fill="var(--solid)" />
      <path
        d={springPath(y)}
        fill="none"
        stroke="var(--quiet)"
        strokeWidth={1.5 + (values.stiffness ?? 14) / 20}
        strokeLinejoin="round"
      />
      <line x1="120" y1={restY} x2="280" y2={restY} stroke="var(--rule)" strokeDasharray="4 4" />
      <text x="286" y={restY + 4} fontSize="10" fill="var(--quiet)">
        rest
      </text>
      <g {...grab} aria-label="Buoy: pull it and let go" transform={`translate(200 ${y})`}>
        <path
          d={`M0,0 L${size * 0.62},${size} L${-size * 0.62},${size} Z`}
          fill="var(--region-yellow)"
          stroke="var(--text)"
          strokeWidth="2"
          strokeLinejoin="round"
        />
        <ellipse
          cx="0"
          cy={size + 6}
          rx={size * 0.9}
          ry={size * 0.36}
          fill="var(--act)"
          stroke="var(--text)"
          strokeWidth="2"
        />
      </g>
      <SensorDrawing x={200} y={368} flash={values.flash === 1} />
      <text x="200" y="396" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        motion sensor, looking up
      </text>
    </svg>
  );
}

export const buoy: Scene = {
  apparatus: 'buoy',
  Drawing,
  canHold: true,
  actions: [
    { label: 'Pull it down and hold', does: () => [{ action: 'do', key: 'pull' }] },
    { label: 'Bring to rest', does: () => [{ action: 'do', key: 'rest' }] },
  ],
};
