import { useRef } from 'react';
import { type DrawingProps, type Scene, does } from '../scene';
import { SensorDrawing } from '../SensorDrawing';
import { useGrab } from '../useGrab';

const floorY = 370;
const pixelsPerMetre = 165;
const radius = 0.1 * pixelsPerMetre;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const h = values.h ?? 0;
  const grab = useGrab({
    svg,
    positionAt: (_x, y) => (floorY - radius - y) / pixelsPerMetre,
    position: h,
    keyStep: -0.1,
    act,
  });
  return (
    <svg
      ref={svg}
      className="scene"
      viewBox="0 0 420 400"
      role="group"
      aria-label="Ball under a motion sensor"
    >
      <rect x="60" y={floorY} width="300" height="8" fill="var(--solid)" />
      <line x1="330" y1={floorY} x2="330" y2="30" stroke="var(--quiet)" strokeWidth="4" />
      <line x1="330" y1="30" x2="210" y2="30" stroke="var(--quiet)" strokeWidth="4" />
      <SensorDrawing x={210} y={36} angle={180} flash={values.flash === 1} />
      <g
        {...grab}
        aria-label="Ball: lift it and let go"
        transform={`translate(210 ${floorY - radius - h * pixelsPerMetre})`}
      >
        <circle r={radius} fill="var(--region-yellow)" stroke="var(--text)" strokeWidth="2" />
        <path d={`M${-radius},0 Q0,-8 ${radius},0`} fill="none" stroke="var(--text)" strokeWidth="2" />
      </g>
    </svg>
  );
}

export const ball: Scene = {
  apparatus: 'ball',
  Drawing,
  canHold: true,
  actions: [does('Lift it and hold', 'lift')],
};
