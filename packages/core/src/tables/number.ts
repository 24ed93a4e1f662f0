const prefixes: Record<string, string> = {
  p: '-12',
  n: '-9',
  u: '-6',
  µ: '-6',
  μ: '-6',
  m: '-3',
  k: '3',
  M: '6',
  G: '9',
};

/**
 * Reads one cell: plain, exponential ("1.2E-03") or engineering notation with a prefix ("4.7k", "12.5 m"), a true minus
 * sign allowed, with a decimal point or, where the file uses one, a decimal comma. An empty cell or "NaN" is a missing
 * reading. Anything else is undefined.
 */
export function parseCell(text: string, decimalComma: boolean): number | undefined {
  const trimmed = text.trim();
  if (trimmed === '' || /^nan$/i.test(trimmed)) return NaN;
  const plain = (decimalComma ? trimmed.replace(',', '.') : trimmed).replace('−', '-');
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+))(?:e([+-]?\d{1,3})|\s?([pnuµμmkMG]))?$/i.exec(plain);
  if (match === null) return undefined;
  const [, digits, exponent, prefix] = match;
  if (prefix !== undefined && !(prefix in prefixes)) return undefined;
  // One conversion of the whole text, so that 1.2e-3 is the double nearest to it.
  return Number(`${digits}e${exponent ?? (prefix === undefined ? '0' : prefixes[prefix])}`);
}
