/** Whether a value is what was asked for, within what is tolerated; the last digits of binary numbers do not count. */
export const isTolerated = (value: number, right: { value: number; tolerance: number }): boolean =>
  Math.abs(value - right.value) <= right.tolerance + 1e-12 * Math.abs(right.value);
