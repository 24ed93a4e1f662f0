import { useRef } from 'react';
import { type DrawingProps, type Scene, does } from '../scene';
import { useGrab } from '../useGrab';

const axle = { x: 210, y: 190 };
const pixelsPerMetre = 150;

function Drawing({ values, act }: DrawingProps) {
  const svg = useRef<SVGSVGElement>(null);
  const angle = values.angle ?? 0;
  const length = (values.length ?? 0.6) * pixelsPerMetre * (values.length > 1 ? 1 / values.length : 1);
  const bob = { x: axle.x + length * Math.sin(angle), y: axle.y + length * Math.cos(angle) };
  const grab = useGrab({
    svg,
    positionAt: (x, y) => Math.atan2(x - axle.x, y - axle.y),
    position: angle,
    keyStep: 0.1,
    act,
  });
  return (
    <svg
      ref={svg}
      className="scene"
      viewBox="0 0 420 400"
      role="group"
      aria-label="Bell hanging from its axle"
    >
      <line x1={axle.x} y1={axle.y} x2={axle.x} y2="380" stroke="var(--rule)" strokeDasharray="4 4" />
      <line x1={axle.x} y1={axle.y} x2={bob.x} y2={bob.y} stroke="var(--text)" strokeWidth="3" />
      <rect x={axle.x - 26} y={axle.y - 18} width="52" height="36" rx="6" fill="var(--solid)" />
      <circle
        cx={axle.x + 14}
        cy={axle.y - 8}
        r="4"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
      <circle cx={axle.x} cy={axle.y} r="5" fill="var(--sheet)" />
      <g
        {...grab}
        aria-label="Bell: pull it aside and let go"
        transform={`translate(${bob.x} ${bob.y}) rotate(${(-angle * 180) / Math.PI})`}
      >
        <path
          d="M-10,-22 Q-14,4 -26,16 L26,16 Q14,4 10,-22 Z"
          fill="var(--region-yellow)"
          stroke="var(--text)"
          strokeWidth="2"
          strokeLinejoin="round"
        />
        <circle cx="0" cy="20" r="6" fill="var(--text)" />
      </g>
      <text x="210" y="30" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        rotary sensor on the axle, {((angle * 180) / Math.PI).toFixed(0).replace('-', '−')}°
      </text>
    </svg>
  );
}

export const bell: Scene = {
  apparatus: 'bell',
  Drawing,
  canHold: true,
  actions: [does('Pull it aside and hold', 'pull'), does('Bring to rest', 'rest')],
};
