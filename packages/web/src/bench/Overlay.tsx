import { type Run } from '@heuristor/contracts';
import { type SeriesRef, writeResult, printedUnit } from '@heuristor/core';
import { type PointerEvent, type RefObject, type WheelEvent, useEffect, useRef, useState } from 'react';
import { useDocuments, usePicture, useSession, useShownPage, useView } from '../session/context';
import { withRegion } from '../session/edits';
import { shownRuns } from '../session/runs';
import { type DrawnTrace } from '../workers/compose';
import { type RegionBounds, axisHeight, pixelOf, plotLeft, valueAtPixel } from './geometry';
import { Offers } from './Offers';
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
  from: number;
  to: number;
}

/** Everything that is done with the pointer on the stack of traces: marking, reading, zooming. */
export function Overlay({ front, stack, regions, roomRight }: Props) {
  const session = useSession();
  const layer = useRef<HTMLDivElement>(null);
  const [cursor, setCursor] = useState<number | null>(null);
  const drag = useRef<Drag | null>(null);
  const wheelRest = useRef<ReturnType<typeof setTimeout> | null>(null);
  const frame = usePicture((picture) => picture.frame);
  const width = useView(({ plotWidth }) => plotWidth);
  const horizontal = useShownPage().horizontal;
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

  const pixel = (event: { clientX: number }) =>
    event.clientX - (layer.current?.getBoundingClientRect().left ?? 0);

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
      ...sight,
    };
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const here = pixel(event);
    setCursor(here);
    const { current } = drag;
    if (current === null) return;
    if (current.pan) {
      session.move();
      const shift = ((here - current.at) / width) * (current.to - current.from);
      session.look({ from: current.from - shift, to: current.to - shift });
      return;
    }
    if (current.region === null && Math.abs(here - current.at) < shortestDrag) return;
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
  const onPointerUp = () => {
    if (drag.current?.region === null && !drag.current.pan) session.view.setState({ selectedRegion: null });
    drag.current = null;
    session.settle();
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
      className="overlay"
      data-testid="overlay"
      data-from={sight.from}
      data-to={sight.to}
      style={{ left: plotLeft(), right: roomRight }}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      // What the system takes away is let go of as it stands.
      onPointerCancel={onPointerUp}
      onLostPointerCapture={() => drag.current !== null && onPointerUp()}
      onPointerLeave={() => setCursor(null)}
      onWheel={onWheel}
      onDoubleClick={() => session.frameAll()}
    >
      {horizontal === 't' &&
        front?.gaps.map((gap) => {
          const left = Math.max(pixelOf(gap.from, sight, width), 0);
          const right = Math.min(pixelOf(gap.to, sight, width), width);
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
      <RegionMarks regions={regions} frame={frame} width={width} onGrab={() => setCursor(null)} />
      {cursor !== null && drag.current === null && cursor >= 0 && cursor <= width && (
        <CursorReadings at={cursor} front={front} stack={stack} />
      )}
      {chosen !== undefined && <Offers region={chosen} sight={sight} width={width} />}
    </div>
  );
}

function CursorReadings({ at, front, stack }: Pick<Props, 'front' | 'stack'> & { at: number }) {
  const traces = usePicture((picture) => picture.traces);
  const frame = usePicture((picture) => picture.frame);
  const width = useView(({ plotWidth }) => plotWidth);
  const several = useDocuments(({ runs }) => shownRuns(runs).length > 1);
  if (frame === null) return null;
  const value = valueAtPixel(at, frame.sight, width);
  const top = stack.current?.getBoundingClientRect().top ?? 0;
  const panels = [...(stack.current?.querySelectorAll<HTMLElement>('[data-trace]') ?? [])];
  const side = at < width - 220 ? { left: at + 6 } : { right: width - at + 6 };
  const { symbol, unit } = frame.horizontal;
  const place = writeResult(value, (frame.sight.to - frame.sight.from) / width);
  return (
    <>
      <div className="cursor-line" style={{ left: at, bottom: axisHeight() }} />
      <div className="cursor-value cursor-place" style={{ ...side, bottom: axisHeight() + 4 }}>
        {several && front !== undefined && <span className="cursor-run">{front.name} </span>}
        {symbol} = {place.value}
        {place.exponent === 0 ? '' : `e${place.exponent}`} {printedUnit(unit)}
      </div>
      {traces.map((trace) => {
        const panel = panels.find(({ dataset }) => dataset.trace === trace.key);
        const reading = readingAt(trace, front?.id, value);
        if (panel === undefined || reading === null) return null;
        const traceUnit = printedUnit(trace.unit);
        return (
          <div
            key={trace.key}
            className="cursor-value"
            data-reading={trace.key}
            style={{ ...side, top: panel.getBoundingClientRect().top - top + 22 }}
          >
            {trace.symbol} = {reading}
            {traceUnit === '' ? '' : ` ${traceUnit}`}
          </div>
        );
      })}
    </>
  );
}

/** The reading of the front run nearest to a place on the axis. */
function readingAt({ lines, low, high }: DrawnTrace, runId: string | undefined, at: number): string | null {
  const line = lines.find((candidate) => candidate.runId === runId);
  if (line === undefined || line.x.length === 0) return null;
  let nearest = 0;
  for (let i = 1; i < line.x.length; i++)
    if (Math.abs(line.x[i] - at) < Math.abs(line.x[nearest] - at)) nearest = i;
  if (at < line.x[0] - (line.x[1] - line.x[0]) || Number.isNaN(line.y[nearest])) return null;
  const written = writeResult(line.y[nearest], (high - low) / 400);
  return written.exponent === 0 ? written.value : `${written.value}e${written.exponent}`;
}
