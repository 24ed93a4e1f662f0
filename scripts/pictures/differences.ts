import pixelmatch from 'pixelmatch';
import { PNG } from 'pngjs';

/** Cells of so many pixels a side are compared as a whole: a digit that changes by itself takes its surroundings with it. */
const cell = 16;

/** Where two pictures differ, as cells: `[column, row]` in the order of reading. */
export interface PictureDifference {
  cells: [column: number, row: number][];
  /** In pixels: left, top, right and bottom of all that differs. */
  box: [number, number, number, number] | null;
}

/** The cells in which two pictures of one size differ. @throws Error where their sizes do */
function differingCells(one: PNG, other: PNG): Set<number> {
  const { width, height } = one;
  if (other.width !== width || other.height !== height)
    throw new Error(
      `One picture has ${width} × ${height} pixels and the other ${other.width} × ${other.height}.`,
    );
  const mask = new PNG({ width, height });
  pixelmatch(one.data, other.data, mask.data, width, height, { threshold: 0.02, diffMask: true });
  const columns = Math.ceil(width / cell);
  const cells = new Set<number>();
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (mask.data[4 * (y * width + x) + 3] !== 0)
        cells.add(Math.floor(y / cell) * columns + Math.floor(x / cell));
  return cells;
}

/** A cell and its eight neighbours: what changes by itself does not keep to a cell. */
function withNeighbours(cells: ReadonlySet<number>, columns: number): Set<number> {
  const wide = new Set<number>();
  for (const index of cells)
    for (let down = -1; down <= 1; down++)
      for (let right = -1; right <= 1; right++) {
        const column = (index % columns) + right;
        if (column >= 0 && column < columns) wide.add(index + down * columns + right);
      }
  return wide;
}

/**
 * Where a picture differs from earlier ones, beside what differs among those already (live values, times of day).
 * @param before pictures of the same state of the program, as PNG files: with one alone every difference counts
 * @param after the picture that is held against the first of them
 * @throws Error where sizes differ
 */
export function pictureDifference(before: readonly Buffer[], after: Buffer): PictureDifference {
  const [first, ...others] = before.map((bytes) => PNG.sync.read(bytes));
  if (first === undefined) throw new Error('There is no earlier picture to compare with.');
  const columns = Math.ceil(first.width / cell);
  const changing = withNeighbours(
    new Set(others.flatMap((other) => [...differingCells(first, other)])),
    columns,
  );
  const cells = [...differingCells(first, PNG.sync.read(after))]
    .filter((index) => !changing.has(index))
    .sort((a, b) => a - b)
    .map((index): [number, number] => [index % columns, Math.floor(index / columns)]);
  if (cells.length === 0) return { cells, box: null };
  const across = cells.map(([column]) => column);
  const down = cells.map(([, row]) => row);
  return {
    cells,
    box: [
      Math.min(...across) * cell,
      Math.min(...down) * cell,
      (Math.max(...across) + 1) * cell,
      (Math.max(...down) + 1) * cell,
    ],
  };
}
