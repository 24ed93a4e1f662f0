import { interpolatedNoise } from './composedNoise';
import { onOneGrid } from './sampling';
import { type Series, valuesAtTimesOf, windowedBehind } from './series';

/** A series read at the times of another one, with its noise: itself where both share their times, else on straight lines. */
export function atTimesOf(series: Series, other: Series): Series {
  if (onOneGrid(series.sampling, other.sampling)) return series;
  const { noise, further, shared } = series;
  return {
    ...series,
    uncertainties: undefined,
    windowed: windowedBehind([series]),
    sampling: other.sampling,
    values: valuesAtTimesOf(series, other),
    noise: noise === null ? null : interpolatedNoise(noise, series, other),
    ...(further === undefined
      ? {}
      : { further: further.map((path) => interpolatedNoise(path, series, other)) }),
    ...(shared === undefined
      ? {}
      : {
          shared: shared.map((one) => ({
            ...one,
            effect: valuesAtTimesOf({ ...series, values: one.effect }, other),
          })),
        }),
  };
}
