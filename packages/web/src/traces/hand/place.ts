/** In pixels from the upper left corner of the plots. */
export interface Place {
  x: number;
  y: number;
}
