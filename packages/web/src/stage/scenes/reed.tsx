import { type DrawingProps, type Scene, does } from '../scene';
import { fixedText } from '../../ui/numberText';

const root = { x: 110, y: 200 };
const length = 220;
const pixelsPerMillimetre = 12;

function Drawing({ values }: DrawingProps) {
  const bend = (values.y ?? 0) * pixelsPerMillimetre;
  const stir = (values.amplitude ?? 0) * Math.cos(values.phase ?? 0) * 20;
  return (
    <svg className="scene" viewBox="0 0 420 400" role="img" aria-label="Reed, clamped at its root">
      <rect x={root.x - 40} y={root.y - 40} width="40" height="80" rx="4" fill="var(--solid)" />
      <circle
        cx={root.x - 12}
        cy={root.y - 26}
        r="4"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
      <path
        d={`M${root.x},${root.y} Q${root.x + length * 0.55},${root.y} ${root.x + length},${root.y - bend}`}
        stroke="var(--act)"
        strokeWidth="7"
        strokeLinecap="round"
        fill="none"
      />
      <line
        x1={root.x}
        y1={root.y}
        x2={root.x + length + 30}
        y2={root.y}
        stroke="var(--rule)"
        strokeDasharray="4 4"
      />
      <g transform={`translate(${root.x - 20} ${root.y + 70 + stir})`}>
        <rect
          x="-26"
          y="0"
          width="52"
          height="30"
          rx="4"
          fill="var(--region-yellow)"
          stroke="var(--text)"
          strokeWidth="2"
        />
        <line x1="0" y1="0" x2="0" y2={-30 - stir} stroke="var(--text)" strokeWidth="3" />
      </g>
      <text x={root.x - 20} y={root.y + 130} fontSize="10" fill="var(--quiet)" textAnchor="middle">
        driver {fixedText(values.frequency ?? 0, 2)} Hz
      </text>
    </svg>
  );
}

export const reed: Scene = {
  apparatus: 'reed',
  Drawing,
  canHold: false,
  actions: [does('Pluck it', 'pluck'), does('Bring to rest', 'still')],
};
