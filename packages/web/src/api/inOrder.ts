let last: Promise<unknown> = Promise.resolve();

/**
 * Does something on the server after all that was asked for before it, whether that succeeded or not: what a hand does one after
 * the other, such as setting a length and pressing Record, must not overtake each other on the way.
 */
export function inOrder<T>(work: () => Promise<T>): Promise<T> {
  const mine = last.then(work, work);
  last = mine;
  return mine;
}
