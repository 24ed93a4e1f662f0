import { useRef } from 'react';
import { type DrawingProps, type Scene, does } from '../scene';
import { useGrab } from '../useGrab';
import { fixedText } from '../../ui/numberText';

const tip = 110;
const pixelsPerMetre = 540;
const railY = 220;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const distance = values.distance ?? 0.2;
  const grab = useGrab({
    svg,
    positionAt: (x) => (x - tip) / pixelsPerMetre,
    position: distance,
    keyStep: 0.01,
    act,
  });
  return (
    <svg
      ref={svg}
      className="scene"
      viewBox="0 0 420 400"
      role="group"
      aria-label="Magnet on a rail before a field sensor"
    >
      <rect x="20" y={railY + 20} width="390" height="6" fill="var(--solid)" />
      {[0, 0.1, 0.2, 0.3, 0.4, 0.5].map((mark) => (
        <text
          key={mark}
          x={tip + mark * pixelsPerMetre}
          y={railY + 46}
          fontSize="10"
          fill="var(--quiet)"
          textAnchor="middle"
        >
          {mark}
        </text>
      ))}
      <rect x="14" y={railY - 16} width="50" height="32" rx="5" fill="var(--solid)" />
      <circle
        cx="52"
        cy={railY - 8}
        r="4"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
      <rect x="60" y={railY - 5} width={tip - 60} height="10" rx="3" fill="var(--quiet)" />
      <circle cx={tip - 0.012 * pixelsPerMetre} cy={railY} r="3" fill="var(--sheet)" />
      <g
        {...grab}
        aria-label="Magnet: move it along the rail"
        transform={`translate(${tip + distance * pixelsPerMetre} ${railY})`}
      >
        <rect
          x="-22"
          y="-14"
          width="22"
          height="34"
          fill="var(--region-peach-edge)"
          stroke="var(--text)"
          strokeWidth="2"
        />
        <rect x="0" y="-14" width="22" height="34" fill="var(--sheet)" stroke="var(--text)" strokeWidth="2" />
      </g>
      <text x="210" y="60" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        {fixedText(distance * 100, 1)} cm from the tip; the sensing point is the mark 12 mm behind it
      </text>
    </svg>
  );
}

export const rail: Scene = {
  apparatus: 'rail',
  Drawing,
  canHold: true,
  actions: [does('Far away, for zeroing', 'away')],
};
