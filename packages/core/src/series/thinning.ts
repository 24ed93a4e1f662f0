/**
 * Least and greatest value over each of `buckets` equal stretches of the abscissa from `from` to `to`, for drawing any
 * number of points at the width of a screen. Returns points in the order in which they occur in each bucket; stretches with
 * as few points as that are returned as they are. A missing value stays as one NaN, so that the line breaks there.
 */
export interface DrawnLine {
  x: Float64Array;
  y: Float64Array;
}

export function thinForDrawing(
  x: Float64Array,
  y: Float64Array,
  first: number,
  end: number,
  buckets: number,
): DrawnLine {
  const count = end - first;
  if (count <= buckets * 4) return { x: x.slice(first, end), y: y.slice(first, end) };
  const outX = new Float64Array(buckets * 3);
  const outY = new Float64Array(buckets * 3);
  let length = 0;
  const push = (index: number) => {
    outX[length] = x[index];
    outY[length++] = y[index];
  };
  for (let bucket = 0; bucket < buckets; bucket++) {
    const from = first + Math.floor((bucket * count) / buckets);
    const to = first + Math.floor(((bucket + 1) * count) / buckets);
    let low = -1;
    let high = -1;
    let missing = -1;
    for (let i = from; i < to; i++) {
      const value = y[i];
      if (value !== value) missing = i;
      else {
        if (low < 0 || value < y[low]) low = i;
        if (high < 0 || value > y[high]) high = i;
      }
    }
    const chosen = [low, high, missing].filter((index) => index >= 0).sort((a, b) => a - b);
    chosen.forEach((index, place) => {
      if (place === 0 || index !== chosen[place - 1]) push(index);
    });
  }
  return { x: outX.slice(0, length), y: outY.slice(0, length) };
}
