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
import { shiftOf } from '../session/aligning';
import { useDocuments, usePicture, useSession, useShownPage, useView } from '../session/context';
import { withRegion } from '../session/edits';
import { CursorLayer } from './CursorLayer';
import { LabelLayer } from './LabelLayer';
import { axisKey } from '../workers/scaling';
import { type RegionBounds, axisHeight, pixelOf, plotLeft, valueAtPixel } from './geometry';
import { Offers } from './Offers';
import { plotOf, valueIn } from './panelPlot';
import { RegionMarks } from './RegionMarks';

const shortestDrag = 5;
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

/** Everything that is done with the pointer on the stack of traces: marking, reading, zooming. */
export function Overlay({ front, stack, regions, roomRight }: Props) {
  const session = useSession();
  const layer = useRef<HTMLDivElement>(null);
  const drag = useRef<Drag | null>(null);
  const [box, setBox] = useState<{ left: number; right: number; top: number; bottom: number } | null>(null);
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

  const traceUnder = (clientY: number): SeriesRef | null => {
    for (const panel of stack.current?.querySelectorAll<HTMLElement>('[data-trace]') ?? []) {
      const { top, bottom } = panel.getBoundingClientRect();
      if (clientY >= top && clientY <= bottom)
        return (
          session.picture.getState().traces.find(({ key }) => key === panel.dataset.trace)?.reference ?? null
        );
    }
    return null;
  };

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.target !== layer.current || event.button > 1) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = {
      at: pixel(event),
      series: traceUnder(event.clientY),
      region: null,
      pan: event.shiftKey || event.button === 1,
      shift,
      box: event.ctrlKey || event.metaKey ? height(event) : null,
      ...sight,
    };
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const here = pixel(event);
    const { current } = drag;
    hoverAt(current === null && event.pointerType !== 'touch' ? here : null);
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
  const onPointerUp = (event?: PointerEvent) => {
    const { current } = drag;
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
    if (!isTime) return;
    const at = valueAtPixel(here, sight, width);
    if (current.pan) session.cursor.putSecond(at);
    else session.cursor.put(at);
  };
  /** Only what lies in a box, of the trace in which it was begun. */
  const lookAtBox = (x0: number, x1: number, y0: number, y1: number) => {
    if (Math.abs(x1 - x0) < shortestDrag || Math.abs(y1 - y0) < shortestDrag) return;
    const top = layer.current?.getBoundingClientRect().top ?? 0;
    const panel = [...(stack.current?.querySelectorAll<HTMLElement>('[data-trace]') ?? [])].find((one) => {
      const box = one.getBoundingClientRect();
      return top + y0 >= box.top && top + y0 <= box.bottom;
    });
    const trace = session.picture.getState().traces.find(({ key }) => key === panel?.dataset.trace);
    if (panel === undefined || trace === undefined) return;
    const plot = plotOf(panel, top);
    if (plot === null) return;
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
    if (direction === 0 || event.target !== layer.current || !isTime) return;
    event.preventDefault();
    void session.cursor.step(direction * (event.shiftKey ? 10 : 1));
  };
  const onWheel = (event: WheelEvent) => {
    const seen = session.view.getState().sight ?? sight;
    const here = valueAtPixel(pixel(event), seen, width);
    const factor = event.deltaY > 0 ? zoomStep : 1 / zoomStep;
    session.move();
    session.look({ from: here - (here - seen.from) * factor, to: here + (seen.to - here) * factor });
    if (wheelRest.current !== null) clearTimeout(wheelRest.current);
    wheelRest.current = setTimeout(() => session.settle(), wheelRestMilliseconds);
  };

  return (
    <div
      ref={layer}
      className={`overlay ${isShifting ? 'shifting' : ''}`}
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
      onPointerLeave={() => hoverAt(null)}
      onKeyDown={onKeyDown}
      tabIndex={0}
      role="group"
      aria-label="Traces: arrow keys move a cursor from reading to reading"
      onWheel={onWheel}
      onDoubleClick={() => session.frameAll()}
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
      {isTime && <CursorLayer front={front} stack={stack} />}
      {chosen !== undefined && <Offers region={chosen} sight={sight} width={width} />}
    </div>
  );
}
