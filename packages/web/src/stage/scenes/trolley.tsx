import { useRef } from 'react';
import { type DrawingProps, type Scene, does } from '../scene';
import { useGrab } from '../useGrab';

/** Where the boat's stern is when it is at 0, and the track turns. */
const foot = { x: 50, y: 170 };
const pixelsPerMetre = 220;
const fall = 0.8;
const trackEnd = 1.2 * pixelsPerMetre + 54;
const pulleyAt = trackEnd + 9;
const floorY = 372;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const x = values.x ?? 0;
  const rise = values.rise ?? 0;
  const radians = (rise * Math.PI) / 180;
  const hasString = values.string !== 0;
  const along = (distance: number, up = 0) => ({
    x: foot.x + distance * Math.cos(radians) - up * Math.sin(radians),
    y: foot.y - distance * Math.sin(radians) - up * Math.cos(radians),
  });
  const grab = useGrab({
    svg,
    positionAt: (atX, atY) =>
      ((atX - foot.x) * Math.cos(radians) - (atY - foot.y) * Math.sin(radians)) / pixelsPerMetre,
    position: x,
    keyStep: 0.05,
    act,
  });
  const boatX = x * pixelsPerMetre;
  const pulley = along(pulleyAt, 2);
  const highest = pulley.y + 26;
  const weightY = highest + (Math.min(x, fall) / fall) * (floorY - 16 - highest);
  const [near, far] = [along(10), along(trackEnd - 24)];
  return (
    <svg
      ref={svg}
      className="scene"
      viewBox="0 0 460 400"
      role="group"
      aria-label="Boat, string, pulley and weight"
    >
      <line x1="20" y1={floorY} x2="440" y2={floorY} stroke="var(--rule)" strokeWidth="3" />
      {[near, far].map((leg, i) => (
        <line key={i} x1={leg.x} y1={leg.y} x2={leg.x} y2={floorY} stroke="var(--quiet)" strokeWidth="4" />
      ))}
      {hasString && (
        <>
          <path
            d={`M${pulley.x + 10},${pulley.y} L${pulley.x + 10},${weightY}`}
            stroke="var(--text)"
            strokeDasharray={x > fall ? '3 5' : undefined}
          />
          <rect
            x={pulley.x - 2}
            y={weightY}
            width="24"
            height="16"
            rx="2"
            fill="var(--region-peach-edge)"
            stroke="var(--text)"
          />
        </>
      )}
      <g transform={`translate(${foot.x} ${foot.y}) rotate(${-rise})`}>
        <rect x="-20" y="0" width={trackEnd + 20} height="6" fill="var(--solid)" />
        <rect x="-12" y="-18" width="8" height="18" rx="2" fill="var(--quiet)" />
        {hasString && (
          <path
            d={`M${boatX + 52},-12 L${pulleyAt},-12`}
            stroke="var(--text)"
            strokeDasharray={x > fall ? '3 5' : undefined}
          />
        )}
        <circle cx={pulleyAt} cy="-2" r="10" fill="var(--sheet)" stroke="var(--text)" strokeWidth="2" />
        <g
          {...grab}
          aria-label="Boat: take it along the track and let go"
          transform={`translate(${boatX} 0)`}
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
      </g>
      <text x="230" y="24" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        encoder and force hook in the boat
      </text>
    </svg>
  );
}

export const trolley: Scene = {
  apparatus: 'trolley',
  Drawing,
  canHold: true,
  actions: [does('Bring it back and hold', 'back'), does('Push it along', 'push'), does('Catch it', 'catch')],
};
