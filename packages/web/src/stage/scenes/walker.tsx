import { useRef } from 'react';
import { type DrawingProps, type Scene } from '../scene';
import { SensorDrawing } from '../SensorDrawing';
import { useGrab } from '../useGrab';

const left = 30;
const pixelsPerMetre = 90;
const ground = 320;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const x = values.x ?? 1.5;
  const grab = useGrab({
    svg,
    positionAt: (at) => (at - left) / pixelsPerMetre,
    position: x,
    keyStep: 0.1,
    act,
  });
  const stride = Math.sin(x * 9) * 16;
  return (
    <svg
      ref={svg}
      className="scene"
      viewBox="0 0 420 400"
      role="group"
      aria-label="Somebody before a motion sensor"
    >
      <line x1="10" y1={ground} x2="410" y2={ground} stroke="var(--solid)" strokeWidth="4" />
      {[0, 1, 2, 3, 4].map((mark) => (
        <text
          key={mark}
          x={left + mark * pixelsPerMetre}
          y={ground + 22}
          fontSize="10"
          fill="var(--quiet)"
          textAnchor="middle"
        >
          {mark} m
        </text>
      ))}
      <line x1={left - 6} y1={ground} x2={left - 6} y2="206" stroke="var(--quiet)" strokeWidth="4" />
      <SensorDrawing x={left - 2} y={200} angle={90} flash={values.flash === 1} />
      <g
        {...grab}
        aria-label="Somebody: drag them to and fro"
        transform={`translate(${left + x * pixelsPerMetre} ${ground})`}
      >
        <path
          d={`M0,-70 L${stride},0 M0,-70 L${-stride},0 M0,-120 L${-stride * 0.8},-80 M0,-120 L${stride * 0.8},-80`}
          stroke="var(--text)"
          strokeWidth="7"
          strokeLinecap="round"
          fill="none"
        />
        <path
          d="M-13,-128 L13,-128 L10,-66 L-10,-66 Z"
          fill="var(--act)"
          stroke="var(--text)"
          strokeWidth="2"
        />
        <circle cx="0" cy="-146" r="15" fill="var(--region-peach)" stroke="var(--text)" strokeWidth="2" />
      </g>
      <text x="210" y="60" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        drag the figure; it walks as the hand does
      </text>
    </svg>
  );
}

export const walker: Scene = { apparatus: 'walker', Drawing, canHold: true, actions: [] };
