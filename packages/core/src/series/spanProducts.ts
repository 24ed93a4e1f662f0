import { type WeightSpan, dotOfSpans } from './noisePath';

/** So many readings of all intervals are looked at together, so that they stay near the processor. */
const blockLength = 512;

/**
 * Σ w v of every two of several intervals of weights, over the readings that both have: what the results that they belong to owe to
 * the same readings.
 * @returns the lower triangle, row by row
 */
export function productsOfSpans(spans: readonly WeightSpan[]): Float64Array {
  const sums = new Float64Array((spans.length * (spans.length + 1)) / 2);
  let [first, end] = [Infinity, -Infinity];
  for (const { first: own, weights } of spans) {
    if (weights.length === 0) continue;
    first = Math.min(first, own);
    end = Math.max(end, own + weights.length);
  }
  // Where one has nothing it is laid out as 0, and 0 times what is no number is none: such are taken two by two.
  if (!spans.every(isAllFinite))
    return Float64Array.from(
      spans.flatMap((one, i) => spans.slice(0, i + 1).map((other) => dotOfSpans(one, other))),
    );
  const tile = new Float64Array(spans.length * blockLength);
  for (let from = first; from < end; from += blockLength)
    addProducts(tile, fillTile(tile, spans, from), Math.min(end - from, blockLength), sums);
  return sums;
}

function isAllFinite({ weights }: WeightSpan): boolean {
  let check = 0;
  for (let i = 0; i < weights.length; i++) check += 0 * weights[i];
  return check === 0;
}

/** Lays what intervals have in a block of readings side by side. @returns which of them have something there */
function fillTile(tile: Float64Array, spans: readonly WeightSpan[], from: number): number[] {
  const present: number[] = [];
  spans.forEach(({ first, weights }, i) => {
    const low = Math.max(from, first);
    const high = Math.min(from + blockLength, first + weights.length);
    if (low >= high) return;
    const at = present.push(i) - 1;
    const row = tile.subarray(at * blockLength, (at + 1) * blockLength);
    row.fill(0);
    row.set(weights.subarray(low - first, high - first), low - from);
  });
  return present;
}

/** Adds the products of all rows of a tile. Four rows at a time read each number of the fifth once. */
function addProducts(
  tile: Float64Array,
  present: readonly number[],
  count: number,
  sums: Float64Array,
): void {
  for (let a = 0; a < present.length; a++) {
    const row = a * blockLength;
    const to = (present[a] * (present[a] + 1)) / 2;
    let b = 0;
    for (; b + 3 <= a; b += 4) {
      const other = b * blockLength;
      let [p, q, r, s] = [0, 0, 0, 0];
      for (let i = 0; i < count; i++) {
        const weight = tile[row + i];
        p += weight * tile[other + i];
        q += weight * tile[other + blockLength + i];
        r += weight * tile[other + 2 * blockLength + i];
        s += weight * tile[other + 3 * blockLength + i];
      }
      sums[to + present[b]] += p;
      sums[to + present[b + 1]] += q;
      sums[to + present[b + 2]] += r;
      sums[to + present[b + 3]] += s;
    }
    for (; b <= a; b++) {
      const other = b * blockLength;
      let sum = 0;
      for (let i = 0; i < count; i++) sum += tile[row + i] * tile[other + i];
      sums[to + present[b]] += sum;
    }
  }
}
