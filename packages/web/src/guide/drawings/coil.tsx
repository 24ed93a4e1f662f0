import { type DrawingOf } from './kind';

export const coil: DrawingOf = {
  title: 'A magnet over a coil with a voltage sensor',
  shapes: (
    <>
      <path d="M108 8h24v30h-24zM108 23h24" />
      <path d="M120 44v14M115 53l5 6 5 -6" />
      <ellipse cx="120" cy="72" rx="34" ry="7" />
      <ellipse cx="120" cy="80" rx="34" ry="7" />
      <ellipse cx="120" cy="88" rx="34" ry="7" />
      <ellipse cx="120" cy="96" rx="34" ry="7" />
      <path d="M154 72h34v24H154" />
      <text x="194" y="90">
        U
      </text>
      <text x="115" y="34">
        S
      </text>
      <text x="115" y="20">
        N
      </text>
    </>
  ),
};
