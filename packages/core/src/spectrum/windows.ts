import { cos } from '../elementary';
/** How the readings of an interval are weighed before their spectrum is taken. */
export type SpectrumWindow = 'hann' | 'none';

/**
 * The weight of a reading at a share of its interval, 0 at its beginning and 1 at its end. Hann's is the periodic one, as spectra
 * want it (F. J. Harris, Proc. IEEE 66 (1978) 51, eq. 27).
 */
export const windowWeight = (window: SpectrumWindow, share: number): number =>
  window === 'none' ? 1 : 0.5 - 0.5 * cos(2 * Math.PI * share);
