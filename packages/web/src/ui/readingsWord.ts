/** So many readings as people say it; thousands stand apart. */
export const readingsWord = (count: number): string =>
  `${count.toLocaleString('en').replaceAll(',', '\u2009')} ${count === 1 ? 'reading' : 'readings'}`;
