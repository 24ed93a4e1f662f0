import { type DrawingOf } from './kind';

export const hangingMass: DrawingOf = {
  title: 'A cart pulled along a level track by a string over a wheel, with a hanging mass',
  shapes: (
    <>
      <path d="M16 62H176" />
      <path d="M36 40h48v14H36z" />
      <circle cx="46" cy="58" r="4" />
      <circle cx="74" cy="58" r="4" />
      <path d="M84 47H186" />
      <circle cx="186" cy="57" r="10" />
      <path d="M196 57V86M188 86h16v18h-16z" />
      <text x="210" y="98">
        m
      </text>
      <text x="96" y="40">
        F
      </text>
    </>
  ),
};
