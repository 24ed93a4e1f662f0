import { type DrawingProps, type Scene, does } from '../scene';
import { fixedText } from '../../ui/numberText';

const floorY = 350;
const pixelsPerMetre = 110;

function Drawing({ values }: DrawingProps) {
  const y = floorY - (values.height ?? 0) * pixelsPerMetre;
  return (
    <svg className="scene" viewBox="0 0 420 400" role="img" aria-label="Barometer on a stair">
      <rect x="30" y={floorY} width="360" height="8" fill="var(--solid)" />
      <rect x="230" y={floorY - 1.8 * pixelsPerMetre} width="130" height="8" fill="var(--quiet)" />
      <rect
        x="246"
        y={floorY - 1.8 * pixelsPerMetre - 110}
        width="98"
        height="100"
        fill="var(--grid)"
        stroke="var(--quiet)"
        strokeWidth="4"
      />
      <g transform={`translate(${(values.height ?? 0) >= 1.7 ? 290 : 150} ${y})`}>
        <rect x="-24" y="-34" width="48" height="34" rx="5" fill="var(--solid)" />
        <circle
          cx="14"
          cy="-25"
          r="4"
          fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
        />
        <circle cx="-6" cy="-17" r="10" fill="var(--sheet)" />
        <line x1="-6" y1="-17" x2="-1" y2="-23" stroke="var(--region-peach-edge)" strokeWidth="2" />
      </g>
      <text x="210" y="384" fontSize="10" fill="var(--quiet)" textAnchor="middle">
        {fixedText(values.height ?? 0, 1)} m above the foot of the stair
      </text>
    </svg>
  );
}

export const weather: Scene = {
  apparatus: 'weather',
  Drawing,
  canHold: false,
  actions: [does('At the foot of the stair', 'foot'), does('At its top', 'top')],
};
