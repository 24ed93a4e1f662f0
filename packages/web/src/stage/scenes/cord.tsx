import { useRef } from 'react';
import { type DrawingProps, type Scene } from '../scene';
import { useGrab } from '../useGrab';

const left = 70;
const pixelsPerMetre = 500;
const y = 190;
const slack = 0.05;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const x = values.x ?? 0;
  const grab = useGrab({
    svg,
    positionAt: (at) => (at - left) / pixelsPerMetre,
    position: x,
    keyStep: 0.02,
    act,
  });
  const end = left + 20 + x * pixelsPerMetre;
  const sag = Math.max(slack - x, 0) * 600;
  return (
    <svg
      ref={svg}
      className="scene"
      viewBox="0 0 420 400"
      role="group"
      aria-label="Cord between sensor and hand"
    >
      <rect x="10" y={y - 24} width="56" height="48" rx="6" fill="var(--solid)" />
      <circle
        cx="52"
        cy={y - 12}
        r="4"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
      <path
        d={`M66,${y} Q${(66 + end) / 2},${y + sag} ${end},${y}`}
        fill="none"
        stroke="var(--region-peach-edge)"
        strokeWidth={Math.max(7 - 8 * x, 2)}
      />
      <g {...grab} aria-label="End of the cord: pull it" transform={`translate(${end} ${y})`}>
        <circle r="16" fill="var(--region-yellow)" stroke="var(--text)" strokeWidth="2" />
        <circle r="6" fill="var(--sheet)" stroke="var(--text)" strokeWidth="2" />
      </g>
      <line x1={left + 20} y1="290" x2={left + 20 + 0.6 * pixelsPerMetre} y2="290" stroke="var(--quiet)" />
      {[0, 0.2, 0.4, 0.6].map((mark) => (
        <text
          key={mark}
          x={left + 20 + mark * pixelsPerMetre}
          y="310"
          fontSize="10"
          fill="var(--quiet)"
          textAnchor="middle"
        >
          {mark} m
        </text>
      ))}
      <text x="210" y="60" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        pull the ring to the right; let go and it springs back
      </text>
    </svg>
  );
}

export const cord: Scene = { apparatus: 'cord', Drawing, canHold: true, actions: [] };
