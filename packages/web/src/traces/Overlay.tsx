import { type Run } from '@heuristor/contracts';
import { type SeriesRef } from '@heuristor/core';
import {
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
  type WheelEvent,
  useEffect,
  useRef,
  useState,
} from 'react';
import { shiftOf } from '../runs/aligning';
import { useDocuments, usePicture, useSession, useShownPage, useView } from '../investigation/context';
import { withRegion } from '../workings/edits';
import { CursorLayer } from './cursor/CursorLayer';
import { LabelLayer } from './labels/LabelLayer';
import { axisKey } from './axes/scaling';
import { type RegionBounds, axisHeight, pixelOf, plotLeft, valueAtPixel } from './geometry';
import { Offers } from '../workings/Offers';
import { type PanelPlot, plotOf, valueIn } from './axes/panelPlot';
import { pinchedAxis } from './pinch';
import { zoomed } from './axes/axisMoves';
import { type DrawnTrace } from './drawn';
import { type PointQuestion, type Sight, type Spot } from '../workers/protocol';
import { RegionMarks } from './RegionMarks';

const shortestDrag = 5;
/** Pixels from the pointer within which a point of a plot is meant. */
const nearReach = 40;
const zoomStep = 1.18;
/** A wheel that has stood still so long has been let go. */
const wheelRestMilliseconds = 180;

interface Props {
  front: Run | undefined;
  stack: RefObject<HTMLDivElement | null>;
  regions: RegionBounds[];
  /** Pixels at the right of the plots. */
  roomRight: number;
}

interface Drag {
  at: number;
  series: SeriesRef | null;
  region: string | null;
  pan: boolean;
  /** By how much the run in front was moved in time. */
  shift: number;
  /** Where a box that is to be looked at begins, from the top of the layer; null where none is drawn. */
  box: number | null;
  from: number;
  to: number;
}

/** Two fingers that turn the axes. */
interface Pinch {
  ids: number[];
  began: [Spot, Spot];
  sight: Sight;
  found: { trace: DrawnTrace; plot: PanelPlot } | null;
}

/** Everything that is done with the pointer on the stack of traces: marking, reading, zooming. */
export function Overlay({ front, stack, regions, roomRight }: Props) {
  const session = useSession();
  const layer = useRef<HTMLDivElement>(null);
  const drag = useRef<Drag | null>(null);
  const [box, setBox] = useState<{ left: number; right: number; top: number; bottom: number } | null>(null);
  const [lasso, setLasso] = useState<readonly Spot[] | null>(null);
  const isLassoing = useView((view) => view.isLassoing);
  const fingers = useRef(new Map<number, Spot>());
  const pinch = useRef<Pinch | null>(null);
  /** The pointer has left: what is still on its way is not shown. */
  const isGone = useRef(false);
  const wheelRest = useRef<ReturnType<typeof setTimeout> | null>(null);
  const frame = usePicture((picture) => picture.frame);
  const width = useView(({ plotWidth }) => plotWidth);
  const horizontal = useShownPage().horizontal;
  const isShifting = useView((view) => view.isShifting) && horizontal === 't';
  const shift = useDocuments(({ workings }) => (front === undefined ? 0 : shiftOf(workings, front.id)));
  const selected = useView(({ selectedRegion }) => selectedRegion);
  const chosen = regions.find(({ id }) => id === selected);
  useEffect(() => {
    // React listens to wheels passively; the page must not scroll while a trace is zoomed.
    const element = layer.current;
    const hold = (event: Event) => event.preventDefault();
    element?.addEventListener('wheel', hold, { passive: false });
    return () => element?.removeEventListener('wheel', hold);
  }, []);
  if (frame === null) return null;
  const { sight } = frame;
  const isTime = horizontal === 't';
  const hoverAt = (here: number | null) =>
    session.cursor.hover(
      here === null || !isTime || here < 0 || here > width ? null : valueAtPixel(here, sight, width),
    );

  const pixel = (event: { clientX: number }) =>
    event.clientX - (layer.current?.getBoundingClientRect().left ?? 0);

  const height = (event: { clientY: number }) =>
    event.clientY - (layer.current?.getBoundingClientRect().top ?? 0);

  /** What unfolds from a label lies elsewhere on the page, though its events come by here. */
  const isHere = ({ target }: { target: EventTarget }) =>
    target instanceof Node && layer.current?.contains(target) === true;

  /** The trace at a height of the layer, with where its plot lies. */
  const traceAt = (y: number) => {
    const top = layer.current?.getBoundingClientRect().top ?? 0;
    for (const panel of stack.current?.querySelectorAll<HTMLElement>('[data-trace]') ?? []) {
      const place = panel.getBoundingClientRect();
      if (top + y < place.top || top + y > place.bottom) continue;
      const trace = session.picture.getState().traces.find(({ key }) => key === panel.dataset.trace);
      const plot = plotOf(panel, top);
      return trace === undefined || plot === null ? null : { trace, plot };
    }
    return null;
  };
  /** In a plot of one quantity against another: what is asked for the reading nearest to the pointer. */
  const questionAt = (event: { clientX: number; clientY: number }): PointQuestion | null => {
    const found = traceAt(height(event));
    if (found === null || found.trace.reference === null) return null;
    const { trace, plot } = found;
    return {
      of: trace.reference as SeriesRef,
      along: horizontal,
      units: { x: frame.horizontal.unit, y: trace.unit },
      spot: { x: valueAtPixel(pixel(event), sight, width), y: valueIn(plot, height(event), trace) },
      pixel: { x: (sight.to - sight.from) / width, y: (trace.high - trace.low) / plot.height },
      reach: nearReach,
    };
  };
  const hover = (event: PointerEvent) => {
    if (isTime) {
      hoverAt(pixel(event));
      return;
    }
    const question = questionAt(event);
    if (question === null) session.cursor.hover(null);
    else
      void session.cursor.near(question).then((at) => {
        if (!isGone.current) session.cursor.hover(at);
      });
  };

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.target !== layer.current || event.button > 1) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    isGone.current = false;
    if (event.pointerType === 'touch') {
      fingers.current.set(event.pointerId, { x: pixel(event), y: height(event) });
      if (fingers.current.size === 2) beginPinch();
      if (fingers.current.size > 1) return;
    }
    if (isLassoing) {
      setLasso([{ x: pixel(event), y: height(event) }]);
      return;
    }
    drag.current = {
      at: pixel(event),
      series: traceAt(height(event))?.trace.reference ?? null,
      region: null,
      pan: event.shiftKey || event.button === 1,
      shift,
      box: event.ctrlKey || event.metaKey ? height(event) : null,
      ...sight,
    };
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    if (!isHere(event)) return;
    const here = pixel(event);
    const { current } = drag;
    if (fingers.current.has(event.pointerId))
      fingers.current.set(event.pointerId, { x: here, y: height(event) });
    if (pinch.current !== null) {
      movePinch();
      return;
    }
    if (lasso !== null) {
      setLasso([...lasso, { x: here, y: height(event) }]);
      return;
    }
    isGone.current = false;
    if (current === null && event.pointerType !== 'touch') hover(event);
    else hoverAt(null);
    if (current === null) return;
    if (current.box !== null) {
      setBox({ left: current.at, right: here, top: current.box, bottom: height(event) });
      return;
    }
    if (current.pan) {
      session.move();
      const shift = ((here - current.at) / width) * (current.to - current.from);
      session.look({ from: current.from - shift, to: current.to - shift });
      return;
    }
    if (current.region === null && Math.abs(here - current.at) < shortestDrag) return;
    if (isShifting && front !== undefined) {
      session.move();
      const by = current.shift + ((here - current.at) / width) * (current.to - current.from);
      session.shiftRuns(new Map([[front.id, by]]));
      return;
    }
    const ends = [valueAtPixel(current.at, sight, width), valueAtPixel(here, sight, width)];
    const [start, end] = [Math.min(...ends), Math.max(...ends)];
    session.move();
    if (current.region === null) {
      session.changeWorkings((workings) => {
        const made = withRegion(workings, session.onPage.page, start, end);
        current.region = made.id;
        return made.workings;
      });
      session.view.setState({ selectedRegion: current.region, selectedSeries: current.series });
    } else session.changeEntry(current.region, { start, end });
  };
  const beginPinch = () => {
    drag.current = null;
    setBox(null);
    const [a, b] = [...fingers.current.values()];
    const found = traceAt((a.y + b.y) / 2);
    pinch.current = { ids: [...fingers.current.keys()], began: [a, b], sight, found };
  };
  const movePinch = () => {
    const { current } = pinch;
    if (current === null) return;
    const [a, b] = current.ids.map((id) => fingers.current.get(id));
    if (a === undefined || b === undefined) return;
    const [c, d] = current.began;
    session.move();
    const across = pinchedAxis(current.sight, width, [c.x, d.x], [a.x, b.x]);
    if (across !== null) session.look(across);
    if (current.found === null) return;
    const { trace, plot } = current.found;
    const up = (y: number) => plot.top + plot.height - y;
    const upright = pinchedAxis(
      { from: trace.low, to: trace.high },
      plot.height,
      [up(c.y), up(d.y)],
      [up(a.y), up(b.y)],
    );
    if (upright !== null) session.scale(axisKey(trace.key, 'left'), upright);
  };
  /** What lies in what was drawn is set aside, of the run in front. */
  const endLasso = (drawn: readonly Spot[]) => {
    setLasso(null);
    session.view.setState({ isLassoing: false });
    const found = traceAt(drawn[0].y);
    if (drawn.length < 3 || front === undefined || found === null || found.trace.reference === null) return;
    const { trace, plot } = found;
    const outline = drawn.map(({ x, y }) => ({
      x: valueAtPixel(x, sight, width),
      // What is drawn beyond the plot goes on there.
      y: trace.high - ((y - plot.top) / plot.height) * (trace.high - trace.low),
    }));
    void session.asides.within(front, {
      of: trace.reference as SeriesRef,
      along: horizontal,
      units: { x: frame.horizontal.unit, y: trace.unit },
      outline,
    });
  };
  const onPointerUp = (event?: PointerEvent) => {
    const { current } = drag;
    if (event !== undefined) fingers.current.delete(event.pointerId);
    else fingers.current.clear();
    if (pinch.current !== null) {
      if (fingers.current.size < 2) {
        pinch.current = null;
        session.settle();
      }
      return;
    }
    if (lasso !== null) {
      endLasso(event === undefined ? [] : lasso);
      return;
    }
    drag.current = null;
    session.settle();
    setBox(null);
    if (current !== null && current.box !== null && event !== undefined) {
      lookAtBox(current.at, pixel(event), current.box, height(event));
      return;
    }
    if (current === null || current.region !== null || event === undefined || isShifting) return;
    // Nothing was dragged: the cursor is put here.
    const here = pixel(event);
    if (Math.abs(here - current.at) >= shortestDrag) return;
    session.view.setState({ selectedRegion: null });
    const put = (at: number) => (current.pan ? session.cursor.putSecond(at) : session.cursor.put(at));
    if (isTime) {
      put(valueAtPixel(here, sight, width));
      return;
    }
    const question = questionAt(event);
    if (question !== null)
      void session.cursor.near(question).then((at) => {
        if (at !== null) put(at);
      });
  };
  /** Only what lies in a box, of the trace in which it was begun. */
  const lookAtBox = (x0: number, x1: number, y0: number, y1: number) => {
    if (Math.abs(x1 - x0) < shortestDrag || Math.abs(y1 - y0) < shortestDrag) return;
    const found = traceAt(y0);
    if (found === null) return;
    const { trace, plot } = found;
    const [from, to] = [
      valueAtPixel(Math.min(x0, x1), sight, width),
      valueAtPixel(Math.max(x0, x1), sight, width),
    ];
    const [low, high] = [valueIn(plot, Math.max(y0, y1), trace), valueIn(plot, Math.min(y0, y1), trace)];
    if (!(high > low)) return;
    session.looking.change({
      sight: { from, to },
      scales: { ...session.view.getState().scales, [axisKey(trace.key, 'left')]: { from: low, to: high } },
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (direction === 0 || event.target !== layer.current) return;
    event.preventDefault();
    void session.cursor.step(direction * (event.shiftKey ? 10 : 1));
  };
  const onWheel = (event: WheelEvent) => {
    if (!isHere(event)) return;
    // With Shift, browsers turn the wheel sideways.
    const turned = event.deltaY === 0 ? event.deltaX : event.deltaY;
    const factor = turned > 0 ? zoomStep : 1 / zoomStep;
    session.move();
    if (event.shiftKey) {
      const found = traceAt(height(event));
      if (found !== null) {
        const { trace, plot } = found;
        const key = axisKey(trace.key, 'left');
        const range = session.view.getState().scales[key] ?? { from: trace.low, to: trace.high };
        const about = valueIn(plot, height(event), { low: range.from, high: range.to });
        session.scale(key, zoomed(range, about, factor));
      }
    } else {
      const seen = session.view.getState().sight ?? sight;
      session.look(zoomed(seen, valueAtPixel(pixel(event), seen, width), factor));
    }
    if (wheelRest.current !== null) clearTimeout(wheelRest.current);
    wheelRest.current = setTimeout(() => session.settle(), wheelRestMilliseconds);
  };

  return (
    <div
      ref={layer}
      className={`overlay ${isShifting ? 'shifting' : ''} ${isLassoing ? 'lassoing' : ''}`}
      data-testid="overlay"
      data-from={sight.from}
      data-to={sight.to}
      style={{ left: plotLeft(), right: roomRight }}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      // What the system takes away is let go of as it stands.
      onPointerCancel={() => onPointerUp()}
      onLostPointerCapture={() => drag.current !== null && onPointerUp()}
      onPointerLeave={() => {
        isGone.current = true;
        session.cursor.hover(null);
      }}
      onKeyDown={onKeyDown}
      tabIndex={0}
      role="group"
      aria-label="Traces: arrow keys move a cursor from reading to reading"
      onWheel={onWheel}
      onDoubleClick={(event) => {
        if (event.target === layer.current) session.frameAll();
      }}
    >
      {horizontal === 't' &&
        front?.gaps.map((gap) => {
          const left = Math.max(pixelOf(gap.from + shift, sight, width), 0);
          const right = Math.min(pixelOf(gap.to + shift, sight, width), width);
          return right > left ? (
            <div
              key={`${gap.channel}${gap.from}`}
              className="gap-mark"
              style={{ left, width: right - left, bottom: axisHeight() }}
              title={`${gap.channel}: nothing came here`}
            >
              gap
            </div>
          ) : null;
        })}
      <RegionMarks regions={regions} frame={frame} width={width} onGrab={() => hoverAt(null)} />
      {box !== null && (
        <div
          className="look-box"
          style={{
            left: Math.min(box.left, box.right),
            width: Math.abs(box.right - box.left),
            top: Math.min(box.top, box.bottom),
            height: Math.abs(box.bottom - box.top),
          }}
        />
      )}
      <LabelLayer stack={stack} />
      {lasso !== null && (
        <svg className="lasso" aria-hidden>
          <polygon points={lasso.map(({ x, y }) => `${x},${y}`).join(' ')} />
        </svg>
      )}
      {isLassoing && (
        <div className="lasso-hint" role="status">
          Draw around readings{front === undefined ? '' : ` of ${front.name}`}. Escape leaves it.
        </div>
      )}
      <CursorLayer front={front} stack={stack} />
      {chosen !== undefined && <Offers region={chosen} sight={sight} width={width} />}
    </div>
  );
}
