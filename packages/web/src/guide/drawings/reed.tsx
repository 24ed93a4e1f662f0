import { type DrawingOf } from './kind';

export const reed: DrawingOf = {
  title: 'A sprung strip in a clamp, shaken by a driver',
  shapes: (
    <>
      <path d="M26 70h40v26H26z" />
      <path d="M46 70V58M40 58h12" />
      <path d="M66 82h14M70 40h10v54H70z" />
      <path d="M80 62C120 62 160 56 204 40" />
      <path d="M80 62C120 62 160 68 204 84" className="faint" strokeDasharray="4 4" />
      <path d="M214 40v44M209 46l5 -6 5 6M209 78l5 6 5 -6" className="faint" />
      <text x="34" y="88">
        f
      </text>
    </>
  ),
};
