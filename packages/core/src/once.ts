/** What is made when it is first asked for, and the same ever after. */
export function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}
