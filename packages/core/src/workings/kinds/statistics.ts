import { describe } from '../../statistics/describe';
import { type LineKind } from '../kind';
import { type StatisticsLine } from '../lines';
import { missingNote, select } from '../selection';

/**
 * Mean with standard deviation, extremes and duration. The uncertainty beside the mean is the standard deviation of the
 * mean, s/√n (JCGM 100:2008, 4.2.3), for readings whose noise is independent; a derived series has none, since its
 * neighbouring values share their noise.
 */
export const statistics: LineKind<StatisticsLine> = {
  kind: 'statistics',
  sentence: ({ of }, nameOf) => `mean of ${nameOf(of)}`,
  evaluate({ of, region }, context) {
    const series = context.series(of);
    const selection = select(context, series, 't', context.region(region));
    const { count, mean, standardDeviation, minimum, maximum } = describe(selection.y);
    const spread = count > 1 ? standardDeviation : null;
    const { unit, timeUnit, noise } = series;
    const duration = selection.x[count - 1] - selection.x[0];
    const standardError =
      noise.independent && spread !== null && spread > 0 ? spread / Math.sqrt(count) : null;
    return {
      kind: 'results',
      results: [
        {
          key: 'mean',
          name: 'mean',
          value: mean,
          standardUncertainty: standardError,
          roundTo: spread,
          unit,
          main: true,
        },
        ...(spread === null
          ? []
          : [
              {
                key: 'sd',
                name: 'sd',
                value: spread,
                standardUncertainty: null,
                roundTo: spread > 0 ? spread / Math.sqrt(2 * (count - 1)) : null,
                unit,
                main: false,
              },
            ]),
        {
          key: 'min',
          name: 'min',
          value: minimum,
          standardUncertainty: null,
          roundTo: spread,
          unit,
          main: false,
        },
        {
          key: 'max',
          name: 'max',
          value: maximum,
          standardUncertainty: null,
          roundTo: spread,
          unit,
          main: false,
        },
        {
          key: 'duration',
          name: 'duration',
          value: duration,
          standardUncertainty: null,
          roundTo: series.interval,
          unit: timeUnit,
          main: false,
        },
        {
          key: 'count',
          name: 'readings',
          value: count,
          standardUncertainty: null,
          roundTo: 10,
          unit: [],
          main: false,
        },
      ],
      notes: [
        ...missingNote(selection.missing, count),
        ...(count === 1
          ? ['One reading has no spread. Make the region longer for a standard deviation.']
          : []),
      ],
      fitted: null,
    };
  },
};
