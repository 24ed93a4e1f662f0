// A function that is written inside another one is compiled anew by an engine each time the outer one has been called. So loops that run
// over all readings stand in functions of their own: in a table over hundreds of runs compiling took as long as reckoning.

/** Adds factor·values to what stands from `at` on. */
export function addScaled(sum: Float64Array, values: Float64Array, factor: number, at = 0): void {
  for (let i = 0; i < values.length; i++) sum[at + i] += factor * values[i];
}

/** −a·b, one by one. */
export function negatedProducts(a: Float64Array, b: Float64Array): Float64Array {
  const products = new Float64Array(a.length);
  for (let i = 0; i < products.length; i++) products[i] = -a[i] * b[i];
  return products;
}
