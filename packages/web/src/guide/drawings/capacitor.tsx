import { type DrawingOf } from './kind';

export const capacitor: DrawingOf = {
  title: 'A capacitor and a resistor with a voltage sensor across the capacitor',
  shapes: (
    <>
      <path d="M40 24H110M110 24h20M150 24H200V96H40V24" />
      <path d="M110 16h40v16h-40z" fill="white" />
      <path d="M40 52H28M40 52h12M28 62h24" />
      <path d="M40 62V96M40 24V52" />
      <path d="M200 50v8M184 58h32M184 66h32M200 66v10" />
      <text x="124" y="48">
        R
      </text>
      <text x="218" y="66">
        C
      </text>
      <text x="176" y="92">
        U
      </text>
    </>
  ),
};
