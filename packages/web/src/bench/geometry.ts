/** Where the plots lie in their panels: all panels share these, so that one overlay fits the whole stack. */
export const plotLeft = 72;
export const plotRight = 16;
export const axisHeight = 30;

export interface Viewport {
  from: number;
  to: number;
}

/** Pixel of a value on the shared axis, from the left edge of the plots. */
export const pixelOf = (value: number, { from, to }: Viewport, width: number): number =>
  ((value - from) / (to - from)) * width;

/** Value under a pixel. */
export const valueAtPixel = (pixel: number, { from, to }: Viewport, width: number): number =>
  from + (pixel / width) * (to - from);
