import { type DrawnLine, type DrawnQuantity, type DrawnTrace } from './drawn';
import { type StyleOfRun } from './chartSetup';
import { lineLabelsOf } from './labels/lineLabels';
import { type Marks, type OverLayer } from './layers';
import { colourIn } from './lineColour';

/** What lies over the lines of a trace. */
export const overLayerOf = (
  {
    curves,
    lines,
    quantities,
  }: { curves: DrawnTrace['curves']; lines: readonly DrawnLine[]; quantities: readonly DrawnQuantity[] },
  styles: ReadonlyMap<string, StyleOfRun>,
  joined: boolean,
): Omit<OverLayer, 'label' | 'rightLabel' | 'bottomLabel'> => {
  const colourOf = colourIn(lines, styles);
  return {
    curves: curves.map((curve) => ({ ...curve, front: styles.get(curve.runId)?.front === true })),
    pinned: marksOf('pinned', lines, colourOf),
    strays: marksOf('strays', lines, colourOf),
    aside: marksOf('aside', lines, colourOf),
    bars: barsOf(lines, colourOf),
    arrows: joined ? [] : arrowsOf(lines, colourOf),
    lineLabels: lineLabelsOf(lines, quantities, styles),
  };
};

/** What the marks of a trace mean, where there are any. */
export function leftOutWords(lines: readonly DrawnLine[]): string | null {
  const words = [
    ...(lines.some(({ pinned }) => pinned !== undefined) ? ['△ at the sensor’s limit'] : []),
    ...(lines.some(({ strays }) => strays !== undefined) ? ['× a wrong echo'] : []),
    ...(lines.some(({ aside }) => aside !== undefined) ? ['○ set aside'] : []),
  ];
  return words.length === 0 ? null : `${words.join(', ')}: left out of what is worked out`;
}

type ColourOf = (line: DrawnLine) => string;

const marksOf = (
  kind: 'pinned' | 'strays' | 'aside',
  lines: readonly DrawnLine[],
  colourOf: ColourOf,
): Marks[] =>
  lines.flatMap((line) => {
    const { side, [kind]: marks } = line;
    return marks === undefined ? [] : [{ ...marks, side, color: colourOf(line) }];
  });

const barsOf = (lines: readonly DrawnLine[], colourOf: ColourOf): OverLayer['bars'][number][] =>
  lines.flatMap((line) => {
    const { side, bars } = line;
    return bars === undefined ? [] : [{ ...bars, side, color: colourOf(line) }];
  });

/** Lines that have a direction: what was read one after the other, one quantity against another. */
const arrowsOf = (lines: readonly DrawnLine[], colourOf: ColourOf): OverLayer['arrows'][number][] =>
  lines.flatMap((line) => {
    const { side, x, y, isDots } = line;
    return isDots === true ? [] : [{ x, y, side, color: colourOf(line) }];
  });
