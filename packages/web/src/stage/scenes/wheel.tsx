import { useRef } from 'react';
import { type DrawingProps, type Scene, does } from '../scene';
import { useGrab } from '../useGrab';

const left = 60;
const pixelsPerMetre = 150;
const ground = 260;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const s = values.s ?? 0;
  const radius = values.radius ?? 0.03;
  const drawn = 20 + radius * 500;
  const grab = useGrab({
    svg,
    positionAt: (at) => (at - left) / pixelsPerMetre,
    position: s,
    keyStep: 0.05,
    act,
  });
  return (
    <svg ref={svg} className="scene" viewBox="0 0 420 400" role="group" aria-label="Wheel on the quay">
      <line x1="30" y1={ground} x2="400" y2={ground} stroke="var(--solid)" strokeWidth="5" />
      {[0, 0.5, 1, 1.5, 2].map((mark) => (
        <g key={mark}>
          <line
            x1={left + mark * pixelsPerMetre}
            y1={ground}
            x2={left + mark * pixelsPerMetre}
            y2={ground + 12}
            stroke="var(--text)"
          />
          <text
            x={left + mark * pixelsPerMetre}
            y={ground + 28}
            fontSize="10"
            fill="var(--quiet)"
            textAnchor="middle"
          >
            {mark} m
          </text>
        </g>
      ))}
      <g
        {...grab}
        aria-label="Wheel: roll it"
        transform={`translate(${left + s * pixelsPerMetre} ${ground - drawn})`}
      >
        <line
          x1="0"
          y1="0"
          x2="46"
          y2={-drawn - 40}
          stroke="var(--text)"
          strokeWidth="5"
          strokeLinecap="round"
        />
        <g transform={`rotate(${((s / radius) * 180) / Math.PI})`}>
          <circle r={drawn} fill="var(--region-yellow)" stroke="var(--text)" strokeWidth="3" />
          {[0, 60, 120].map((turn) => (
            <line
              key={turn}
              x1={-drawn}
              x2={drawn}
              y1="0"
              y2="0"
              stroke="var(--text)"
              strokeWidth="2"
              transform={`rotate(${turn})`}
            />
          ))}
          <circle cx={drawn * 0.75} cy="0" r="4" fill="var(--text)" />
        </g>
      </g>
      <text x="210" y="50" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        what it calls a distance hangs on the radius that is set in its set-up
      </text>
    </svg>
  );
}

export const wheel: Scene = {
  apparatus: 'wheel',
  Drawing,
  canHold: true,
  actions: [does('Back to the mark', 'back')],
};
