declare module 'fft.js' {
  /** Fast Fourier transform of a power-of-two size. */
  export default class FFT {
    constructor(size: number);
    /** cos(πi/size) and −sin(πi/size) for i from 0 on, in turn. */
    table: Float64Array;
    realTransform(output: Float64Array, input: Float64Array): void;
  }
}
