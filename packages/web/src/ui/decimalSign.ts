import { create } from 'zustand';

/** What stands between whole numbers and tenths. */
export type DecimalSign = '.' | ',';

const key = 'decimal-sign';
// What is worked out without a browser, as in a test, has none.
const storage = 'localStorage' in globalThis ? localStorage : null;

/** How numbers are written on this screen and in print; typed are both read. Stored in the browser, a point where nobody chose. */
export const useDecimalSign = create<{ sign: DecimalSign }>(() => ({
  sign: storage?.getItem(key) === ',' ? ',' : '.',
}));

useDecimalSign.subscribe(({ sign }) => storage?.setItem(key, sign));

export const decimalSign = (): DecimalSign => useDecimalSign.getState().sign;

export const toggleDecimalSign = (): void =>
  useDecimalSign.setState(({ sign }) => ({ sign: sign === '.' ? ',' : '.' }));
