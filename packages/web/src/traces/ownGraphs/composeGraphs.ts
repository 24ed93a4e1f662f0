import { type Panel } from '@heuristor/contracts';
import { type SeriesRef, conversionBetween } from '@heuristor/core';
import { type CompleteGraph, type CompleteRun } from '../knownLines';
import { type Axis, type Line, type Sight } from '../../workers/protocol';
import { framed, padding } from '../axes/scaling';

export interface GraphLine extends Line {
  runId: string;
  isBand: boolean;
  marks: readonly { at: number; half: number; text: string }[];
}

/** A trace with axes of its own: the graphs that one entry draws of all runs. */
export interface DrawnGraph {
  key: string;
  reference: SeriesRef;
  horizontal: Axis;
  vertical: Axis;
  shape: 'line' | 'bars';
  weight: number;
  sight: Sight;
  low: number;
  high: number;
  lines: GraphLine[];
}

/** Graphs of a page that have axes of their own, each with all runs that measure the same. */
export function composeGraphs(
  rendered: readonly CompleteRun[],
  panels: readonly Panel[],
  sights: Partial<Record<SeriesRef, Sight | null>>,
  scales: Readonly<Record<string, Sight>>,
): DrawnGraph[] {
  return panels.flatMap(({ id, series: [reference], weight, without }) => {
    const parts = rendered
      .filter(({ runId }) => !without.includes(runId))
      .flatMap(({ runId, graphs }) => (reference in graphs ? [{ runId, graph: graphs[reference] }] : []));
    const [first] = parts;
    if (first === undefined) return [];
    const { horizontal, vertical, shape } = first.graph;
    const drawn = parts.flatMap(({ runId, graph }) => {
      const x = conversionBetween(graph.horizontal.unit, horizontal.unit);
      const y = conversionBetween(graph.vertical.unit, vertical.unit);
      const { from, to } = graph.reach;
      return x === null || y === null
        ? []
        : [{ line: lineOf(runId, graph, x, y), from: placed(from, x), to: placed(to, x) }];
    });
    const lines = drawn.map(({ line }) => line);
    const all = framed(
      Math.min(...drawn.map(({ from }) => from)),
      Math.max(...drawn.map(({ to }) => to)),
      shape === 'bars' ? padding : 0,
    );
    const sight = sights[reference] ?? all;
    const typed = scales[`${id}/left`];
    const range = typed ?? rangeOf(lines, sight);
    return [
      {
        key: id,
        reference,
        horizontal,
        vertical,
        shape,
        weight,
        sight,
        low: range.from,
        high: range.to,
        lines,
      },
    ];
  });
}

type Conversion = NonNullable<ReturnType<typeof conversionBetween>>;

const placed = (value: number, { factor, offset }: Conversion) => value * factor + offset;
const isSame = ({ factor, offset }: Conversion) => factor === 1 && offset === 0;

function lineOf(runId: string, { line, marks }: CompleteGraph, x: Conversion, y: Conversion): GraphLine {
  const { isBand } = line;
  if (isSame(x) && isSame(y)) return { runId, isBand, marks, x: line.x, y: line.y };
  return {
    runId,
    isBand,
    x: line.x.map((value) => placed(value, x)),
    y: line.y.map((value) => placed(value, y)),
    marks: marks.map(({ at, half, text }) => ({ at: placed(at, x), half: Math.abs(half * x.factor), text })),
  };
}

/** Amplitudes and counts are read from zero. */
function rangeOf(lines: readonly GraphLine[], { from, to }: Sight): Sight {
  let high = 0;
  for (const { x, y } of lines)
    for (let i = 0; i < y.length; i++) if (x[i] >= from && x[i] <= to && y[i] > high) high = y[i];
  return { from: 0, to: high > 0 ? high * (1 + padding) : 1 };
}
