import { type DrawingProps, type Scene, does } from '../scene';
import { fixedText } from '../../ui/numberText';

function Drawing({ values }: DrawingProps) {
  const isLamp = values.lamp === 1;
  return (
    <svg
      className="scene"
      viewBox="0 0 420 400"
      role="img"
      aria-label="Lamp or resistor on a ramp of voltage"
    >
      <path
        d="M80,180 L80,110 L170,110 M250,110 L340,110 L340,290 L80,290 L80,220"
        fill="none"
        stroke="var(--text)"
        strokeWidth="3"
      />
      <rect
        x="50"
        y="180"
        width="60"
        height="40"
        rx="4"
        fill="var(--sheet)"
        stroke="var(--text)"
        strokeWidth="3"
      />
      <path d="M58,212 L80,188 L102,212" fill="none" stroke="var(--act)" strokeWidth="3" />
      {isLamp ? (
        <g>
          <circle cx="210" cy="110" r="40" fill="var(--region-yellow)" opacity={values.glow ?? 0} />
          <circle cx="210" cy="110" r="40" fill="none" stroke="var(--text)" strokeWidth="3" />
          <path d="M182,82 L238,138 M238,82 L182,138" stroke="var(--text)" strokeWidth="3" />
        </g>
      ) : (
        <rect
          x="170"
          y="96"
          width="80"
          height="28"
          fill="var(--sheet)"
          stroke="var(--text)"
          strokeWidth="3"
        />
      )}
      <circle
        cx="210"
        cy="290"
        r="12"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
      <g fontSize="11" fill="var(--quiet)" textAnchor="middle">
        <text x="210" y="340">
          {fixedText(values.voltage ?? 0, 2)} V · {(values.current ?? 0).toFixed(0)} mA
        </text>
        {!isLamp && (
          <text x="210" y="150">
            {values.resistance} Ω
          </text>
        )}
      </g>
    </svg>
  );
}

export const lamp: Scene = {
  apparatus: 'lamp',
  Drawing,
  canHold: false,
  actions: [does('Run the ramp up and down', 'ramp')],
};
