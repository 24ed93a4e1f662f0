import { type DrawingOf } from './kind';

export const tether: DrawingOf = {
  title: 'A cart that is stopped by a line tied to a force sensor',
  shapes: (
    <>
      <path d="M16 84H224" />
      <path d="M18 50h26v18H18z" />
      <path d="M44 60c30 14 60 14 84 -2" />
      <path d="M128 50h56v22h-56z" />
      <circle cx="140" cy="78" r="5" />
      <circle cx="172" cy="78" r="5" />
      <path d="M190 60h26M208 54l8 6 -8 6" />
      <text x="196" y="50">
        v
      </text>
      <text x="26" y="44">
        F
      </text>
    </>
  ),
};
