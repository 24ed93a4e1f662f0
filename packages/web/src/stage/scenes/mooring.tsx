import { useRef } from 'react';
import { type DrawingProps, type Scene, does } from '../scene';
import { SensorDrawing } from '../SensorDrawing';
import { useGrab } from '../useGrab';
import { fixedText } from '../../ui/numberText';

const left = 90;
const pixelsPerMetre = 260;
const water = 220;
const tether = 0.6;

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
  // What is slack of the tether hangs into the water.
  const sag = Math.max(tether - x, 0) * 90;
  return (
    <svg ref={svg} className="scene" viewBox="0 0 420 400" role="group" aria-label="Boat on its tether">
      <rect x="0" y={water} width="420" height="180" fill="var(--grid)" />
      <rect x="10" y={water - 70} width="26" height="250" fill="var(--quiet)" />
      <rect x="24" y={water - 40} width="22" height="18" rx="3" fill="var(--solid)" />
      <path
        d={`M46,${water - 31} Q${(46 + boatX) / 2},${water - 31 + sag} ${boatX},${water - 16}`}
        stroke={values.elastic === 1 ? 'var(--region-peach-edge)' : 'var(--text)'}
        strokeWidth={values.elastic === 1 ? 4 : 2}
        fill="none"
      />
      <g
        {...grab}
        aria-label="Boat: take it along the water and let go"
        transform={`translate(${boatX} ${water})`}
      >
        <path
          d="M0,-22 L70,-22 Q66,-2 50,2 L12,2 Z"
          fill="var(--region-yellow)"
          stroke="var(--text)"
          strokeWidth="2"
          strokeLinejoin="round"
        />
        {values.load > 0 && (
          <rect
            x="18"
            y={-22 - 24 * Math.cbrt(values.load)}
            width="30"
            height={24 * Math.cbrt(values.load)}
            fill="var(--region-lilac, var(--rule))"
            stroke="var(--text)"
          />
        )}
      </g>
      <SensorDrawing x={20} y={water - 92} angle={90} flash={values.flash === 1} />
      <text x="210" y="40" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        force sensor on the bollard, motion sensor above it · pull {fixedText(values.pull ?? 0, 1)} N
      </text>
    </svg>
  );
}

export const mooring: Scene = {
  apparatus: 'mooring',
  Drawing,
  canHold: true,
  actions: [does('Push it off', 'push'), does('Bring it back', 'back')],
};
