import { type DrawingProps, type Scene, does } from '../scene';

const coil = Array.from({ length: 6 }, (_, i) => `a14,14 0 0 1 28,0 ${i}`);

function Drawing({ values }: DrawingProps) {
  const rung = (values.since ?? 1) < 0.15;
  return (
    <svg className="scene" viewBox="0 0 420 400" role="img" aria-label="Coil and capacitor in a ring">
      <g fill="none" stroke="var(--text)" strokeWidth="3" strokeLinecap="round">
        <path
          d={`M126,120 ${coil.map((arc) => arc.slice(0, -2)).join(' ')} L340,120 L340,190 M340,215 L340,290 L80,290 L80,120 L126,120`}
        />
        <path d="M312,190 L368,190 M312,215 L368,215" />
      </g>
      <path
        d="M60,200 l12,0 0,-26 16,0 0,26 12,0"
        fill="none"
        stroke={rung ? 'var(--act)' : 'var(--rule)'}
        strokeWidth="4"
      />
      <circle
        cx="210"
        cy="290"
        r="12"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
      <g fontSize="11" fill="var(--quiet)" textAnchor="middle">
        <text x="210" y="90">
          {values.inductance ?? ''} mH, {values.resistance ?? ''} Ω
        </text>
        <text x="290" y="208" textAnchor="end">
          {values.capacitance ?? ''} nF
        </text>
        <text x="210" y="340">
          {values.repeats === 1 ? 'a pulse twice a second' : 'a pulse when the button is pressed'}
        </text>
      </g>
    </svg>
  );
}

export const ringing: Scene = {
  apparatus: 'ringing',
  Drawing,
  canHold: false,
  actions: [does('Send a pulse', 'pulse'), does('Pulses by themselves', 'repeat')],
};
