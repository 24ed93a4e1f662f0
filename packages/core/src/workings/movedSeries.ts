import { square } from '../elementary';
import { type WeightedValue } from '../calculus/cycles';
import { composedNoise } from '../series/composedNoise';
import {
  type Series,
  type SharedEffect,
  aloneVariance,
  pathsOf,
  sharedAt,
  windowedBehind,
} from '../series/series';
import { type Influence } from '../results/quantity';
import { type Unit } from '../units/unit';
import { gathered, weighedEffect } from './weighed';

/** A number that was worked out from a series, as roots that move all values of another one by so many times that number. */
export function movedBy({ weights }: WeightedValue, series: Series, effect: Float64Array): SharedEffect[] {
  if (weights.weights.length === 0) return [];
  const influences: Influence[] = gathered(pathsOf(series).map((path) => [path, weights] as const));
  const ofShared = (series.shared ?? []).map((one): SharedEffect => {
    const { root, label, by } = one;
    const sum = weighedEffect(one, weights);
    return { root, label, ...(by === undefined ? {} : { by }), effect: effect.map((times) => times * sum) };
  });
  return [
    ...influences.map(({ root, label, effect: by }): SharedEffect => ({ root, label, by, effect })),
    ...ofShared,
  ];
}

/** An effect so many times as large. */
function scaledEffect(one: SharedEffect, factor: number): SharedEffect {
  const { root, label, by, uniform } = one;
  let made: Float64Array | null = null;
  return {
    root,
    label,
    ...(by === undefined ? {} : { by }),
    ...(uniform === undefined ? {} : { uniform: uniform * factor }),
    get effect() {
      return (made ??= one.effect.map((value) => value * factor));
    },
  };
}

/** A series that follows from another one value by value: by an offset and a factor, which need not be the same everywhere. */
export function movedSeries(
  series: Series,
  made: {
    symbol: string;
    quantity?: string;
    unit?: Unit;
    values: Float64Array;
    factor: number;
    shared: readonly SharedEffect[];
  },
): Series {
  const { symbol, quantity, unit, values, factor, shared } = made;
  const own = (series.shared ?? []).map((one) => scaledEffect(one, factor));
  const all = [...own, ...shared];
  const scaled = (path: NonNullable<Series['noise']>) =>
    factor === 1
      ? path
      : composedNoise([{ path, partials: () => new Float64Array(values.length).fill(factor) }]);
  const { uncertainties, shared: before = [] } = series;
  const total = (u: number, i: number) =>
    Math.sqrt(
      square(factor) * aloneVariance(u, before, i) +
        all.reduce((sum, one) => sum + square(sharedAt(one, i)), 0),
    );
  return {
    ...series,
    symbol,
    quantity: quantity ?? series.quantity,
    unit: unit ?? series.unit,
    values,
    windowed: windowedBehind([series]),
    noise: series.noise === null ? null : scaled(series.noise),
    ...(series.further === undefined ? {} : { further: series.further.map(scaled) }),
    ...(series.step === undefined ? {} : { step: Math.abs(factor) * series.step }),
    ...(uncertainties === undefined ? {} : { uncertainties: uncertainties.map(total) }),
    shared: all.length === 0 ? undefined : all,
    // What it is moved by may change with any reading.
    lineage: {},
    settled: shared.length === 0 && factor === 1 ? series.settled : 0,
  };
}
