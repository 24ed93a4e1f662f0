declare module 'fft.js' {
  /** Fast Fourier transform of a power-of-two size. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(output: number[], input: number[]): void;
  }
}
