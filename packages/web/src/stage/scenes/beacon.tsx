import { type DrawingProps, type Scene, does } from '../scene';
import { fixedText } from '../../ui/numberText';

function Drawing({ values, act }: DrawingProps) {
  const closed = values.closed === 1;
  const share = (values.voltage ?? 0) / (values.supply ?? 5);
  const throwSwitch = () => act({ action: 'do', key: 'switch' });
  return (
    <svg className="scene" viewBox="0 0 420 400" role="group" aria-label="Flash circuit">
      <g fill="none" stroke="var(--text)" strokeWidth="3" strokeLinecap="round">
        <path d="M60,150 L60,100 L130,100 M190,100 L230,100 M300,100 L360,100 L360,180 M360,210 L360,300 L60,300 L60,190" />
        <path d="M40,150 L80,150 M50,170 L70,170 M40,180 L80,180 M50,190 L70,190" />
        <path d="M335,180 L385,180 M335,210 L385,210" />
        <path d={closed ? 'M130,100 L190,100' : 'M130,100 L184,74'} stroke="var(--act)" strokeWidth="5" />
        <rect x="230" y="88" width="70" height="24" fill="var(--sheet)" />
      </g>
      <rect
        x="338"
        y={209 - 28 * Math.min(Math.abs(share), 1)}
        width="44"
        height={28 * Math.min(Math.abs(share), 1)}
        fill="var(--region-yellow)"
      />
      <circle cx="130" cy="100" r="5" fill="var(--text)" />
      <circle cx="190" cy="100" r="5" fill="var(--text)" />
      <rect
        className="grabbable"
        x="116"
        y="60"
        width="90"
        height="64"
        fill="transparent"
        role="button"
        tabIndex={0}
        aria-label={closed ? 'Open the switch' : 'Close the switch'}
        onClick={throwSwitch}
        onKeyDown={(event) => {
          if (event.key === 'Enter') throwSwitch();
        }}
      />
      <circle
        cx="200"
        cy="300"
        r="12"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
      <g fontSize="11" fill="var(--quiet)" textAnchor="middle">
        <text x="265" y="140">
          {values.resistance ?? ''} kΩ
        </text>
        <text x="320" y="240">
          {values.capacitance ?? ''} µF
        </text>
        <text x="110" y="174">
          {values.supply ?? ''} V
        </text>
        <text x="210" y="340">
          {fixedText(values.voltage ?? 0, 2)} V across the capacitor
        </text>
        <text x="210" y="360">
          without the supply it discharges through the resistor
        </text>
      </g>
    </svg>
  );
}

export const beacon: Scene = {
  apparatus: 'beacon',
  Drawing,
  canHold: false,
  actions: [does('Throw the switch', 'switch')],
};
