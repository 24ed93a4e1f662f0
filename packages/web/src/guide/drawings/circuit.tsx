import { type DrawingOf } from './kind';

export const circuit: DrawingOf = {
  title: 'A circuit with a coil or resistor, a capacitor or lamp, and a sensor',
  shapes: (
    <>
      <path d="M40 24H90M150 24H200V96H40V24" />
      <path d="M90 24a7.5 7.5 0 0 1 15 0a7.5 7.5 0 0 1 15 0a7.5 7.5 0 0 1 15 0a7.5 7.5 0 0 1 15 0" />
      <path d="M184 58h32M184 66h32M200 24v34M200 66v30" />
      <circle cx="40" cy="60" r="12" fill="white" />
      <text x="35" y="65">
        U
      </text>
    </>
  ),
};
