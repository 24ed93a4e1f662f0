import { useRef } from 'react';
import { type DrawingProps, type Scene, does } from '../scene';
import { useGrab } from '../useGrab';

const left = 50;
const pixelsPerMetre = 220;
const trackY = 150;
const fall = 0.8;
const pulleyX = left + 1.2 * pixelsPerMetre + 70;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const x = values.x ?? 0;
  const grab = useGrab({
    svg,
    positionAt: (at) => (at - left) / pixelsPerMetre,
    position: x,
    keyStep: 0.05,
    act,
  });
  const boatX = left + x * pixelsPerMetre;
  const weightY = trackY + 30 + Math.min(x, fall) * pixelsPerMetre;
  return (
    <svg
      ref={svg}
      className="scene"
      viewBox="0 0 460 400"
      role="group"
      aria-label="Boat, string, pulley and weight"
    >
      <rect x="30" y={trackY} width={pulleyX - 46} height="6" fill="var(--ink)" />
      <line x1="60" y1={trackY} x2="60" y2="372" stroke="var(--quiet)" strokeWidth="4" />
      <line x1={pulleyX - 40} y1={trackY} x2={pulleyX - 40} y2="372" stroke="var(--quiet)" strokeWidth="4" />
      <line x1="20" y1="372" x2="440" y2="372" stroke="var(--rule)" strokeWidth="3" />
      <path
        d={`M${boatX + 52},${trackY - 12} L${pulleyX},${trackY - 12} M${pulleyX + 10},${trackY} L${pulleyX + 10},${weightY}`}
        stroke="var(--text)"
        strokeDasharray={x > fall ? '3 5' : undefined}
        fill="none"
      />
      <circle cx={pulleyX} cy={trackY - 2} r="10" fill="var(--sheet)" stroke="var(--text)" strokeWidth="2" />
      <rect
        x={pulleyX - 2}
        y={weightY}
        width="24"
        height="16"
        rx="2"
        fill="var(--region-peach-edge)"
        stroke="var(--text)"
      />
      <g
        {...grab}
        aria-label="Boat: take it along the track and let go"
        transform={`translate(${boatX} ${trackY})`}
      >
        <path
          d="M0,-24 L52,-24 Q50,-10 38,-9 L8,-9 Z"
          fill="var(--region-yellow)"
          stroke="var(--text)"
          strokeWidth="2"
          strokeLinejoin="round"
        />
        <rect
          x="10"
          y="-36"
          width="20"
          height="12"
          rx="2"
          fill="var(--sheet)"
          stroke="var(--text)"
          strokeWidth="2"
        />
        <circle
          cx="24"
          cy="-30"
          r="3"
          fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
        />
        <circle cx="12" cy="-6" r="6" fill="var(--text)" />
        <circle cx="38" cy="-6" r="6" fill="var(--text)" />
      </g>
      <text x="230" y="40" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        encoder and force hook in the boat
      </text>
    </svg>
  );
}

export const trolley: Scene = {
  apparatus: 'trolley',
  Drawing,
  canHold: true,
  actions: [does('Bring it back and hold', 'back'), does('Catch it', 'catch')],
};
