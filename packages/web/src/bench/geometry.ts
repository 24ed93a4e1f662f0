import { type Sight } from '../workers/protocol';

/** Where the plots lie in their panels: all panels share these, so that one overlay fits the whole stack. They grow with the type. */
export const fontScale = (): number => parseFloat(getComputedStyle(document.documentElement).fontSize) / 16;
export const plotLeft = (): number => 72 * fontScale();
export const plotRight = 16;
export const axisHeight = (): number => 30 * fontScale();

export interface RegionBounds {
  id: string;
  letter: string;
  start: number;
  end: number;
}

/** Pixel of a value on the shared axis, from the left edge of the plots. */
export const pixelOf = (value: number, { from, to }: Sight, width: number): number =>
  ((value - from) / (to - from)) * width;

/** Value under a pixel. */
export const valueAtPixel = (pixel: number, { from, to }: Sight, width: number): number =>
  from + (pixel / width) * (to - from);
