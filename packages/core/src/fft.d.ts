declare module 'fft.js' {
  /** Fast Fourier transform of a power-of-two size. */
  export default class FFT {
    constructor(size: number);
    /** cos(πi/size) and −sin(πi/size) for i from 0 on, in turn. */
    table: number[];
    createComplexArray(): number[];
    realTransform(output: number[], input: number[]): void;
  }
}
