import { type DrawingOf } from './kind';

export const ball: DrawingOf = {
  title: 'A ball that is dropped under a motion sensor that looks down',
  shapes: (
    <>
      <path d="M104 8h32v14h-32z" />
      <path d="M120 26V50" className="faint" strokeDasharray="3 3" />
      <circle cx="120" cy="62" r="10" />
      <path d="M120 74v20M115 88l5 6 5 -6" />
      <path d="M60 110H180" />
      <path d="M150 62V110M146 62h8M146 110h8" className="faint" />
      <text x="158" y="90">
        h
      </text>
    </>
  ),
};
