import { type DrawingOf } from './kind';

export const walk: DrawingOf = {
  title: 'Somebody walking in front of a motion sensor',
  shapes: (
    <>
      <path d="M16 104H224" />
      <path d="M20 50h22v26H20zM31 76v28" />
      <path d="M46 62H120" className="faint" strokeDasharray="3 3" />
      <circle cx="150" cy="30" r="9" />
      <path d="M150 39v34M150 48l-18 14M150 48l18 10M150 73l-14 30M150 73l16 30" />
      <path d="M176 60h34M202 54l8 6 -8 6" />
      <text x="190" y="50">
        x
      </text>
    </>
  ),
};
