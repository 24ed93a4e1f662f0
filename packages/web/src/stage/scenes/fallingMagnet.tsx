import { useRef } from 'react';
import { type DrawingProps, type Scene, does } from '../scene';
import { useGrab } from '../useGrab';

const coilY = 180;
const pixelsPerMetre = 480;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const z = values.z ?? 0.25;
  const grab = useGrab({
    svg,
    positionAt: (_x, y) => (coilY - y) / pixelsPerMetre,
    position: z,
    keyStep: -0.02,
    act,
  });
  const radius = 20 + (values.radius ?? 15);
  return (
    <svg ref={svg} className="scene" viewBox="0 0 420 400" role="group" aria-label="Magnet above a coil">
      <ellipse
        cx="210"
        cy={coilY - 16}
        rx={radius}
        ry="8"
        fill="none"
        stroke="var(--region-peach-edge)"
        strokeWidth="4"
      />
      <g
        {...grab}
        aria-label="Magnet: lift it and let go"
        transform={`translate(210 ${coilY - z * pixelsPerMetre})`}
      >
        <rect
          x="-12"
          y="-22"
          width="24"
          height="22"
          fill="var(--region-peach-edge)"
          stroke="var(--text)"
          strokeWidth="2"
        />
        <rect x="-12" y="0" width="24" height="22" fill="var(--sheet)" stroke="var(--text)" strokeWidth="2" />
      </g>
      {[-8, 0, 8, 16].map((y) => (
        <path
          key={y}
          d={`M${210 - radius},${coilY + y} a${radius},8 0 0 0 ${2 * radius},0`}
          fill="none"
          stroke="var(--region-peach-edge)"
          strokeWidth="4"
        />
      ))}
      <path
        d={`M${210 + radius},${coilY} L330,${coilY} L330,250`}
        fill="none"
        stroke="var(--text)"
        strokeWidth="2"
      />
      <rect x="304" y="250" width="52" height="34" rx="5" fill="var(--solid)" />
      <circle
        cx="344"
        cy="259"
        r="4"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
      <rect x="150" y="376" width="120" height="12" rx="5" fill="var(--rule)" />
      <text x="330" y="304" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        voltage sensor
      </text>
    </svg>
  );
}

export const fallingMagnet: Scene = {
  apparatus: 'fallingMagnet',
  Drawing,
  canHold: true,
  actions: [does('Lift it and hold', 'up')],
};
