import { square } from '../elementary';

/** So many third differences are looked at together: how large the smaller ones are tells what is usual there. */
export const blockLength = 64;
/** With fewer of them that tells too little. */
const fewest = 12;
/** So many standard deviations large, a third difference is none of the usual ones. */
const unusual = 5;
/** And what no single reading that is off explains has to be so many large. */
const unexplained = 6;
/** What the smaller ones tell is known to a third only; those within so many of its standard deviations tell it better. */
const within = 4;
/**
 * Below which size a quarter, and half, of what is normally distributed lies, in standard deviations. Source: normal tables. The bounces of
 * a ball stand in more than half of all differences.
 */
const quantiles = [
  { share: 0.25, size: 0.3186 },
  { share: 0.5, size: 0.6745 },
] as const;
/** A break between two readings stands in so many third differences, one reading that is off in one more. */
const mostInRow = 3;

/** How one reading that is off stands in the third differences from its own on. */
const ofOneReading = [1, -3, 3, -1] as const;
const ofOneReadingSquared = 20;

/**
 * Where a series breaks, as a position does where a ball meets the floor, told by its third differences: in at most three of them in a row
 * stands far more than in the others, and no single reading that is off explains it. Differences across a break tell of the motion and
 * not of the noise.
 * @param third third differences of readings at regular times; NaN where one is missing. They begin at the begin of a block
 * @returns by each difference, whether a break begins to stand in it. Method ours, checked by simulation.
 */
export function breaksIn(third: Float64Array): Uint8Array {
  const begins = new Uint8Array(third.length);
  const usual = usualSizes(third);
  const isUnusual = (i: number) => Math.abs(third[i]) > unusual * usual[Math.floor(i / blockLength)];
  for (let i = 0; i < third.length; i++) {
    if (!isUnusual(i)) continue;
    const first = i;
    while (i + 1 < third.length && isUnusual(i + 1)) i++;
    const sigma = usual[Math.floor(first / blockLength)];
    if (i - first < mostInRow && leftUnexplained(third, first, i) > square(unexplained * sigma))
      begins[first] = 1;
  }
  return begins;
}

/** The standard deviation that the smaller differences of each block tell; infinity where they say nothing, so that nothing there is unusual. */
function usualSizes(third: Float64Array): Float64Array {
  const blocks = new Float64Array(Math.ceil(third.length / blockLength)).fill(Infinity);
  const room = new Float64Array(blockLength);
  for (let block = 0; block < blocks.length; block++) {
    const first = block * blockLength;
    const past = Math.min(first + blockLength, third.length);
    let count = 0;
    for (let i = first; i < past; i++) if (third[i] === third[i]) room[count++] = Math.abs(third[i]);
    if (count >= fewest) blocks[block] = usualOf(room.subarray(0, count).sort());
  }
  return blocks;
}

/** The same of sizes in order. */
function usualOf(sizes: Float64Array): number {
  for (const { share, size } of quantiles) {
    const sigma = sizes[Math.floor(share * sizes.length)] / size;
    // A sensor of coarse steps says the same again and again; its steps are no breaks.
    if (sigma === 0) continue;
    let [sum, count] = [0, 0];
    while (count < sizes.length && sizes[count] <= within * sigma) sum += square(sizes[count++]);
    return Math.sqrt(sum / count);
  }
  return Infinity;
}

/** The least square that is left of a row of differences once a single reading takes what it can. */
function leftUnexplained(third: Float64Array, first: number, last: number): number {
  let least = Infinity;
  for (let begin = last - mostInRow; begin <= first; begin++) {
    let [all, along] = [0, 0];
    for (const [k, weight] of ofOneReading.entries()) {
      const value = third[begin + k];
      if (!(Math.abs(value) >= 0)) continue;
      all += square(value);
      along += weight * value;
    }
    least = Math.min(least, all - square(along) / ofOneReadingSquared);
  }
  return least;
}
