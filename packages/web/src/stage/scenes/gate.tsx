import { useRef } from 'react';
import { type DrawingProps, type Scene, type SceneValues, does } from '../scene';
import { useGrab } from '../useGrab';

/** Where the first beam stands in the drawing, and the scale. */
const beam = { x: 150, y: 190 };
const spacing = 0.25;

/** What is drawn of each kind, in the order in which the stand-in offers them. */
const kinds = ['card', 'ball', 'cart', 'bob', 'wheel'] as const;

const colour = 'var(--region-lilac-edge)';

function Drawing({ values, act }: DrawingProps) {
  const kind = kinds[values.passer ?? 0] ?? 'card';
  return (
    <svg
      className="scene"
      viewBox="0 0 420 400"
      role="group"
      aria-label="Light gate, and what goes through it"
    >
      {kind === 'card' && <CardScene values={values} act={act} />}
      {kind === 'ball' && <BallScene values={values} />}
      {kind === 'cart' && <CartScene values={values} act={act} />}
      {kind === 'bob' && <BobScene values={values} act={act} />}
      {kind === 'wheel' && <WheelScene values={values} />}
      {values.obstructed === 1 && (
        <rect x={beam.x - 7} y={beam.y - 12} width="14" height="24" rx="4" fill="var(--text)" />
      )}
      <text x="12" y="388" fontSize="10" fill="var(--quiet)">
        beam A {values.a === 1 ? 'blocked' : 'clear'} · beam B {values.b === 1 ? 'blocked' : 'clear'}
      </text>
      <circle
        cx="400"
        cy="384"
        r="5"
        fill={values.flash === 1 ? 'var(--region-yellow)' : 'var(--lamp-off)'}
      />
    </svg>
  );
}

/** A beam that is seen from the side goes into the drawing: a ring, filled where it is blocked. */
function Beam({ x, y, letter, blocked }: { x: number; y: number; letter: string; blocked: boolean }) {
  return (
    <g>
      <circle cx={x} cy={y} r="8" fill={blocked ? colour : 'var(--sheet)'} stroke={colour} strokeWidth="3" />
      <text x={x + 16} y={y + 4} fontSize="12" fill="var(--text)">
        {letter}
      </text>
    </g>
  );
}

const across = (values: SceneValues, scale: number) => (
  <>
    <Beam x={beam.x} y={beam.y} letter="A" blocked={values.a === 1} />
    <Beam x={beam.x + spacing * scale} y={beam.y} letter="B" blocked={values.b === 1} />
  </>
);

const downward = (values: SceneValues, scale: number) => (
  <>
    <Beam x={210} y={120} letter="A" blocked={values.a === 1} />
    <Beam x={210} y={120 + spacing * scale} letter="B" blocked={values.b === 1} />
  </>
);

function CardScene({ values, act }: DrawingProps) {
  const handle = useRef<SVGSVGElement>(null);
  const scale = 220;
  const height = values.place ?? 0;
  const foot = 120 - height * scale;
  const grab = useGrab({
    svg: handle,
    positionAt: (_x, y) => (120 - y) / scale,
    position: height,
    keyStep: -0.02,
    act,
  });
  return (
    <svg ref={handle} viewBox="0 0 420 400" width="420" height="400">
      {foot < 460 && (
        <g {...grab} aria-label="Barred card: lift it and let go" transform={`translate(180 ${foot})`}>
          <rect
            x="0"
            y={-0.4 * scale}
            width="60"
            height={0.4 * scale}
            fill="var(--sheet)"
            stroke="var(--text)"
          />
          {Array.from({ length: 8 }, (_, bar) => (
            <rect
              key={bar}
              x="0"
              y={-(bar * 0.05 + 0.025) * scale}
              width="60"
              height={0.025 * scale}
              fill="var(--text)"
            />
          ))}
        </g>
      )}
      {downward(values, scale)}
      <rect x="150" y="366" width="120" height="10" rx="5" fill="var(--rule)" />
    </svg>
  );
}

function BallScene({ values }: { values: SceneValues }) {
  const scale = 500;
  const radius = ((values.diameter ?? 25) * 1e-3 * scale) / 2;
  const x = beam.x + (values.place ?? 1) * scale;
  return (
    <>
      <path d="M20,180 h20 v40 h-20 z" fill="var(--solid)" />
      {x < 460 && <circle cx={x} cy={beam.y} r={radius} fill="var(--region-peach-edge)" />}
      {across(values, scale)}
    </>
  );
}

function CartScene({ values, act }: DrawingProps) {
  const handle = useRef<SVGSVGElement>(null);
  const scale = 260;
  const place = values.place ?? 0;
  const flag = (values.flag ?? 40) * 1e-3;
  const grab = useGrab({
    svg: handle,
    positionAt: (x) => (x - 130) / scale,
    position: place,
    keyStep: 0.02,
    act,
  });
  const front = 130 + place * scale;
  return (
    <svg ref={handle} viewBox="0 0 420 400" width="420" height="400">
      <g transform={`rotate(${values.slope ?? 3} 130 190)`}>
        <line x1="20" y1="240" x2="400" y2="240" stroke="var(--text)" strokeWidth="3" />
        <g {...grab} aria-label="Trolley: hold it and let go">
          <rect x={front - 44} y="208" width="50" height="20" rx="4" fill={colour} />
          <circle cx={front - 34} cy="232" r="7" fill="var(--text)" />
          <circle cx={front - 4} cy="232" r="7" fill="var(--text)" />
          {[0, 0.1].slice(0, values.flags ?? 2).map((back) => (
            <rect
              key={back}
              x={front - (back + flag) * scale}
              y="178"
              width={flag * scale}
              height="30"
              fill="var(--text)"
            />
          ))}
        </g>
        <Beam x={130} y={188} letter="A" blocked={values.a === 1} />
        <Beam x={130 + spacing * scale} y={188} letter="B" blocked={values.b === 1} />
      </g>
    </svg>
  );
}

function BobScene({ values, act }: DrawingProps) {
  const handle = useRef<SVGSVGElement>(null);
  const angle = values.place ?? 0;
  const line = 280;
  const at = { x: 210 + line * Math.sin(angle), y: 40 + line * Math.cos(angle) };
  const grab = useGrab({
    svg: handle,
    positionAt: (x, y) => Math.atan2(x - 210, y - 40),
    position: angle,
    keyStep: 0.05,
    act,
  });
  return (
    <svg ref={handle} viewBox="0 0 420 400" width="420" height="400">
      <line x1="210" y1="40" x2={at.x} y2={at.y} stroke="var(--text)" strokeWidth="2" />
      <circle cx="210" cy="40" r="5" fill="var(--text)" />
      <Beam x={210} y={320} letter="A" blocked={values.a === 1} />
      <g {...grab} aria-label="Sounding lead: pull it aside and let go">
        <circle
          cx={at.x}
          cy={at.y}
          r="13"
          fill="var(--region-peach-edge)"
          stroke="var(--text)"
          strokeWidth="2"
        />
      </g>
    </svg>
  );
}

function WheelScene({ values }: { values: SceneValues }) {
  const spokes = Math.round(values.spokes ?? 10);
  const turn = ((values.place ?? 0) * 180) / Math.PI;
  const half = 90 / spokes;
  return (
    <>
      <g transform={`rotate(${turn} 210 200)`}>
        {Array.from({ length: spokes }, (_, i) => {
          const [from, to] = [i * 4 * half - half - 90, i * 4 * half + half - 90].map(
            (degrees) => (degrees * Math.PI) / 180,
          );
          const point = (radius: number, a: number) =>
            `${210 + radius * Math.cos(a)},${200 + radius * Math.sin(a)}`;
          return (
            <path
              key={i}
              d={`M210,200 L${point(130, from)} A130,130 0 0 1 ${point(130, to)} Z`}
              fill="var(--region-lilac)"
              stroke="var(--text)"
            />
          );
        })}
      </g>
      <circle cx="210" cy="200" r="12" fill="var(--text)" />
      <Beam x={210} y={90} letter="A" blocked={values.a === 1} />
    </>
  );
}

export const gate: Scene = {
  apparatus: 'gate',
  Drawing,
  canHold: false,
  actions: [
    does('Let it go, throw it, spin it', 'go'),
    does('Hold it ready', 'ready'),
    does('Put a finger through beam A', 'finger'),
    does('Leave something in beam A', 'obstruct'),
  ],
};
