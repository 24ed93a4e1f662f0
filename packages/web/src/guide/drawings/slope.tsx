import { type DrawingOf } from './kind';

export const slope: DrawingOf = {
  title: 'A boat on an inclined slipway with a motion sensor at its upper end',
  shapes: (
    <>
      <path d="M20 104H220L20 40z" className="faint" />
      <path d="M20 40L220 104" />
      <path d="M14 26l14 4 -4 12 -14 -4z" />
      <path d="M96 52l44 14 -6 8 -40 -13z" />
      <circle cx="100" cy="66" r="4" />
      <circle cx="126" cy="74" r="4" />
      <path d="M40 34L86 49" className="faint" strokeDasharray="3 3" />
      <path d="M150 64l24 8M168 65l6 7 -9 2" />
      <text x="178" y="70">
        x
      </text>
    </>
  ),
};
