/** Indices from `first` up to `past`, in ascending order, apart from each other. */
export type Ranges = readonly (readonly [first: number, past: number])[];

/** The ranges that hold what either of two hold. */
export function united(one: Ranges, other: Ranges): Ranges {
  const all = [...one, ...other].filter(([first, past]) => past > first).sort((a, b) => a[0] - b[0]);
  const out: [number, number][] = [];
  for (const [first, past] of all) {
    const last = out[out.length - 1];
    if (last !== undefined && first <= last[1]) last[1] = Math.max(last[1], past);
    else out.push([first, past]);
  }
  return out;
}

/** What the first ranges hold and the others do not. */
export function without(one: Ranges, other: Ranges): Ranges {
  let left: [number, number][] = united(one, []).map(([first, past]) => [first, past]);
  for (const [first, past] of other)
    left = left.flatMap(([from, to]): [number, number][] =>
      past <= from || first >= to
        ? [[from, to]]
        : [
            ...(from < first ? [[from, first] as [number, number]] : []),
            ...(to > past ? [[past, to] as [number, number]] : []),
          ],
    );
  return left;
}

/** How many indices from `first` up to `past` the ranges hold. */
export const countIn = (ranges: Ranges, first: number, past: number): number =>
  ranges.reduce((sum, [from, to]) => sum + Math.max(Math.min(to, past) - Math.max(from, first), 0), 0);

/** Single indices, ascending or not, as ranges. */
export const rangesOf = (indices: readonly number[]): Ranges =>
  united(
    indices.map((index): [number, number] => [index, index + 1]),
    [],
  );
