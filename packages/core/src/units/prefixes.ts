/** SI prefixes by their UCUM code. Source: the SI Brochure, 9th edition (BIPM 2019), table 7. */
export const siPrefixes: Readonly<Record<string, number>> = {
  f: -15,
  p: -12,
  n: -9,
  u: -6,
  m: -3,
  c: -2,
  d: -1,
  h: 2,
  k: 3,
  M: 6,
  G: 9,
  T: 12,
};

/** Both micro signs of Unicode written as UCUM's u. */
export const withPlainMicro = (text: string): string => text.replace(/[µμ]/g, 'u');
