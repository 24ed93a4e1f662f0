import { type Run } from '@heuristor/contracts';
import {
  type SeriesRef,
  type Unit,
  axisLabel,
  printedUnit,
  conversionBetween,
  readIn,
} from '@heuristor/core';
import { type CSSProperties, type RefObject } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import {
  useAbscissa,
  useCursor,
  useDocuments,
  usePicture,
  useShownPage,
  useView,
} from '../../investigation/context';
import { type Read } from './cursor';
import { axisOf } from './cursorWords';
import { fineText, roundedText } from '../../ui/numberText';
import { shownRuns } from '../../runs/runs';
import { LineSample } from '../../runs/LineSample';
import { type DrawnQuantity, type DrawnTrace, type Frame } from '../drawn';
import { type Sight } from '../../workers/protocol';
import { axisHeight, pixelOf } from '../geometry';
import { ofAxis, pixelAt } from '../axes/axisScale';
import { type PanelPlot, heightIn, plotLayout, plotOf } from '../axes/panelPlot';

/** So many runs are read out one by one; of more, the pointer says how many there are. */
const mostRuns = 6;
/** Pixels that a box needs beside its cursor: for the names of runs, and for each quantity. */
const roomForNames = 110;
const roomForQuantity = 76;

interface Props {
  front: Run | undefined;
  stack: RefObject<HTMLDivElement | null>;
}

interface CursorProps {
  read: Read;
  /** The other cursor, where there are two. */
  other: Read | null;
  kind: 'hover' | 'placed' | 'second';
}

/** The lines of the cursors through all traces, with what the shown runs are there. */
export function CursorLayer({ front, stack }: Props) {
  const { placed, second, read, secondRead } = useCursor(
    useShallow(({ placed: first, second: other, read: own, secondRead: its }) => ({
      placed: first,
      second: other,
      read: own,
      secondRead: its,
    })),
  );
  return (
    <>
      {second !== null && secondRead !== null && (
        <CursorAt read={secondRead} other={read} front={front} stack={stack} kind="second" />
      )}
      {read !== null && (
        <CursorAt
          read={read}
          other={second === null ? null : secondRead}
          front={front}
          stack={stack}
          kind={placed === null ? 'hover' : 'placed'}
        />
      )}
    </>
  );
}

function CursorAt({ read, other, front, stack, kind }: Props & CursorProps) {
  const traces = usePicture((picture) => picture.traces);
  const frame = usePicture((picture) => picture.frame);
  const width = useView(({ plotWidth }) => plotWidth);
  const several = useDocuments(({ runs }) => shownRuns(runs).length > 1);
  const { horizontal } = useShownPage();
  const abscissa = useAbscissa();
  useStore(plotLayout);
  if (frame === null) return null;
  const isTime = horizontal === 't';
  const placeIn = (one: Read) =>
    isTime ? placeOf(one, front?.id, traces) : acrossOf(one, front?.id, horizontal, frame.horizontal.unit);
  const place = placeIn(read);
  const at = pixelOf(place, frame.sight, width);
  if (!(at >= -1 && at <= width + 1)) return null;
  const top = stack.current?.getBoundingClientRect().top ?? 0;
  const panels = [...(stack.current?.querySelectorAll<HTMLElement>('[data-trace]') ?? [])];
  // The boxes of two cursors stand away from each other, where there is room.
  const wantsRight = other === null || place >= placeIn(other);
  const isAlone = kind === 'second' || !several;
  const columns = Math.max(...traces.map(({ quantities }) => quantities.length), 1);
  const room = (isAlone ? 0 : roomForNames) + columns * roomForQuantity;
  const onRight = wantsRight ? at < width - room : at < room;
  const side = onRight ? { left: at + 6 } : { right: width - at + 6 };
  const { symbol, unit } = frame.horizontal;
  const digits = pixelAt(place, frame.sight, width);
  return (
    <>
      <div className={`cursor-line ${kind}`} style={{ left: at, bottom: axisHeight() }} />
      <div
        className="cursor-value cursor-place"
        style={{ left: Math.min(Math.max(at, 40), width - 40), bottom: 4 }}
      >
        {several && front !== undefined && <span className="cursor-run">{front.name} </span>}
        {symbol} = {roundedText(place, digits)} {printedUnit(unit)}
        {!isTime && `, ${abscissa.symbol} = ${fineText(read.at)} ${printedUnit(abscissa.unit)}`}
      </div>
      {!isTime && (
        <svg className="cursor-points" width={width} aria-hidden>
          {traces.flatMap((trace) => {
            const panel = panels.find((element) => element.dataset.trace === trace.key);
            const plot = panel === undefined ? null : plotOf(panel, layerTop(stack));
            return plot === null
              ? []
              : pointsAt(trace, read, horizontal, frame, width, plot).map(({ key, ...spot }) => (
                  <circle key={`${trace.key} ${key}`} r={6} {...spot} />
                ));
          })}
        </svg>
      )}
      {kind === 'placed' && isTime && (
        <svg className="cursor-tangents" width={width} aria-hidden>
          {traces.flatMap((trace) => {
            const panel = panels.find((element) => element.dataset.trace === trace.key);
            const plot = panel === undefined ? null : plotOf(panel, layerTop(stack));
            return plot === null
              ? []
              : tangentLines(trace, read, front, frame.sight, width, plot).map(({ key, points }) => (
                  <polyline key={`${trace.key} ${key}`} points={points} />
                ));
          })}
        </svg>
      )}
      {traces.map((trace) => {
        const panel = panels.find((element) => element.dataset.trace === trace.key);
        if (panel === undefined || trace.quantities.length === 0) return null;
        return (
          <CursorBox
            key={trace.key}
            trace={trace}
            read={read}
            front={front}
            isAlone={isAlone}
            style={{ ...side, top: panel.getBoundingClientRect().top - top + 22 }}
          />
        );
      })}
    </>
  );
}

/** From where the layer over the traces counts its heights. */
const layerTop = (stack: Props['stack']): number =>
  stack.current?.querySelector('.overlay')?.getBoundingClientRect().top ?? 0;

/** Where a cursor stands on an axis of another quantity: at what that is in the run in front. */
function acrossOf({ runs }: Read, frontId: string | undefined, along: SeriesRef, unit: Unit): number {
  const value = runs.find(({ runId }) => runId === frontId)?.values[along];
  return value === undefined ? NaN : (readIn(value.y, value.unit, unit) ?? NaN);
}

/** The points of all runs at a cursor, in a plot of one quantity against another. */
function pointsAt(
  trace: DrawnTrace,
  { runs }: Read,
  along: SeriesRef,
  frame: Frame,
  width: number,
  plot: PanelPlot,
) {
  const drawn = new Set(trace.lines.map(({ runId }) => runId));
  return runs
    .filter(({ runId }) => drawn.has(runId))
    .flatMap(({ runId, values }) => {
      const across = values[along];
      const x = across === undefined ? null : readIn(across.y, across.unit, frame.horizontal.unit);
      if (x === null) return [];
      return trace.quantities.flatMap(({ reference, side }) => {
        const value = values[reference];
        const axis = axisOf(trace, side);
        const y = value === undefined ? null : readIn(value.y, value.unit, axis.unit);
        if (y === null) return [];
        const isSeen = x >= frame.sight.from && x <= frame.sight.to && y >= axis.low && y <= axis.high;
        return isSeen
          ? [
              {
                key: `${runId} ${reference}`,
                cx: pixelOf(x, frame.sight, width),
                cy: heightIn(plot, y, axis),
              },
            ]
          : [];
      });
    });
}

/** Tangents reach so many windows to either side. */
const tangentReach = 2;

/** The tangents that are laid to a trace of the run in front, as far as they lie in its plot. */
function tangentLines(
  trace: DrawnTrace,
  { runs }: Read,
  front: Run | undefined,
  sight: Sight,
  width: number,
  plot: PanelPlot,
) {
  const values = runs.find(({ runId }) => runId === front?.id)?.values ?? {};
  return trace.quantities.flatMap(({ reference, side }) => {
    const value = values[reference];
    const tangent = value?.tangent;
    const axis = axisOf(trace, side);
    const conversion = value === undefined ? null : conversionBetween(value.unit, axis.unit);
    if (value === undefined || tangent == null || conversion === null) return [];
    const { factor, offset } = conversion;
    const [middle, slope] = [factor * value.y + offset, factor * tangent.slope];
    const half = tangentReach * tangent.window;
    // Cut off where it leaves the plot, upwards or downwards.
    const room = slope === 0 ? half : (axis.high - axis.low) / Math.abs(slope);
    const [before, after] = [-1, 1].map((sign) => {
      const limit = sign * slope > 0 ? axis.high - middle : middle - axis.low;
      return sign * Math.min(half, room, slope === 0 ? half : Math.max(limit, 0) / Math.abs(slope));
    });
    // What is straight is bent on a logarithmic axis.
    const parts = axis.isLogarithmic === true ? 40 : 1;
    const shares = Array.from({ length: parts + 1 }, (_, i) => i / parts);
    return [
      {
        key: reference,
        points: shares
          .map((share) => before + share * (after - before))
          .filter((by) => axis.isLogarithmic !== true || middle + slope * by > 0)
          .map((by) => `${pixelOf(value.x + by, sight, width)},${heightIn(plot, middle + slope * by, axis)}`)
          .join(' '),
      },
    ];
  });
}

/** Where the cursor stands: at the reading of the run in front, if readings are read. */
function placeOf({ at, runs }: Read, frontId: string | undefined, traces: readonly DrawnTrace[]): number {
  const own = runs.find(({ runId }) => runId === frontId);
  const reference = traces.find((trace) => trace.reference !== null)?.reference;
  return (reference == null ? undefined : own?.values[reference])?.x ?? at;
}

interface BoxProps {
  trace: DrawnTrace;
  read: Read;
  front: Run | undefined;
  /** Only the run in front is read. */
  isAlone: boolean;
  style: CSSProperties;
}

function CursorBox({ trace, read, front, isAlone, style }: BoxProps) {
  const runs = useDocuments((documents) => documents.runs);
  const drawn = new Set(trace.lines.map(({ runId }) => runId));
  const rows = read.runs
    .filter(({ runId }) => drawn.has(runId) && (!isAlone || runId === front?.id))
    .flatMap((reading) => {
      const values = trace.quantities.map((quantity) => {
        const value = reading.values[quantity.reference];
        return value === undefined ? null : written(trace, quantity, value.y, value.unit);
      });
      const run = runs.find(({ id }) => id === reading.runId);
      return values.every((text) => text === null) || run === undefined ? [] : [{ run, values }];
    })
    .sort((a, b) => Number(b.run.id === front?.id) - Number(a.run.id === front?.id));
  if (rows.length === 0) return null;
  const left = rows.length - mostRuns;
  return (
    <table className="cursor-value" data-reading={trace.key} style={style}>
      <thead>
        <tr>
          {trace.quantities.map(({ symbol, side }) => (
            <th key={symbol} scope="col">
              {axisLabel(symbol, axisOf(trace, side).unit)}
            </th>
          ))}
          {rows.length > 1 && <th />}
        </tr>
      </thead>
      <tbody>
        {rows.slice(0, mostRuns).map(({ run, values }) => (
          <tr key={run.id}>
            {values.map((text, i) => (
              <td key={trace.quantities[i].symbol} className="mono">
                {text}
              </td>
            ))}
            {rows.length > 1 && (
              <td className="cursor-run">
                <LineSample style={run.style} width={18} /> {run.name}
              </td>
            )}
          </tr>
        ))}
        {left > 0 && (
          <tr>
            <td colSpan={trace.quantities.length + 1}>and {left} more runs</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** A value in the unit of its axis, with the digits that can be seen there. */
function written(trace: DrawnTrace, { side }: DrawnQuantity, value: number, unit: Unit): string | null {
  const axis = axisOf(trace, side);
  const here = readIn(value, unit, axis.unit);
  return here === null ? null : roundedText(here, pixelAt(here, ofAxis(axis), 400));
}
