import { useRef } from 'react';
import { type DrawingProps, type Scene } from '../scene';
import { SensorDrawing } from '../SensorDrawing';
import { useGrab } from '../useGrab';
import { fixedText } from '../../ui/numberText';

const pixelsPerMetre = 145;
const length = 2.2;
/** Where the boat's stern is when its bow meets the buffer. */
const foot = { x: 330, y: 300 };
const boatLength = 48;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const angle = values.angle ?? 6;
  const radians = (angle * Math.PI) / 180;
  const s = values.s ?? 0.3;
  const along = (distance: number) => ({
    x: foot.x - (length - distance) * pixelsPerMetre * Math.cos(radians),
    y: foot.y - (length - distance) * pixelsPerMetre * Math.sin(radians),
  });
  const boat = along(s);
  const top = along(0);
  const grab = useGrab({
    svg,
    positionAt: (x, y) =>
      length + ((x - foot.x) * Math.cos(radians) + (y - foot.y) * Math.sin(radians)) / pixelsPerMetre,
    position: s,
    keyStep: 0.05,
    act,
  });
  return (
    <svg ref={svg} className="scene" viewBox="0 0 420 400" role="group" aria-label="Lifeboat on its slipway">
      <path
        d="M-400,345 Q-295,333 -190,345 T230,345 T650,345 T850,345 L850,420 L-400,420 Z"
        fill="var(--grid)"
      />
      <line
        x1={top.x - 12}
        y1={top.y}
        x2={foot.x + boatLength + 14}
        y2={foot.y + (boatLength + 14) * Math.tan(radians)}
        stroke="var(--solid)"
        strokeWidth="6"
        strokeLinecap="round"
      />
      <line x1={top.x + 20} y1={top.y} x2={top.x + 20} y2={360} stroke="var(--quiet)" strokeWidth="4" />
      <g transform={`translate(${foot.x} ${foot.y}) rotate(${angle})`}>
        <rect x={boatLength + 2} y="-26" width="8" height="26" rx="2" fill="var(--region-peach-edge)" />
      </g>
      <g transform={`translate(${boat.x} ${boat.y}) rotate(${angle})`}>
        <g {...grab} aria-label="Lifeboat: take it up the slipway and let go">
          <path
            d="M0,-22 L48,-22 Q46,-8 34,-7 L8,-7 Z"
            fill="var(--region-yellow)"
            stroke="var(--text)"
            strokeWidth="2"
            strokeLinejoin="round"
          />
          <rect
            x="10"
            y="-34"
            width="18"
            height="12"
            rx="2"
            fill="var(--sheet)"
            stroke="var(--text)"
            strokeWidth="2"
          />
          <circle cx="11" cy="-6" r="4" fill="var(--text)" />
          <circle cx="33" cy="-6" r="4" fill="var(--text)" />
        </g>
      </g>
      <SensorDrawing x={top.x - 10} y={top.y - 18} angle={90 + angle} flash={values.flash === 1} />
      <text x="16" y="390" fontSize="10" fill="var(--quiet)">
        motion sensor at the top, {fixedText(angle, 1)}° tilt
      </text>
    </svg>
  );
}

export const lifeboat: Scene = {
  apparatus: 'lifeboat',
  Drawing,
  canHold: true,
  actions: [{ label: 'Hold it at the top', does: () => [{ action: 'do', key: 'top' }] }],
};
