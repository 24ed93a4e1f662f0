import { type Run } from '@heuristor/contracts';
import { type RegionLine, type SeriesRef, writeResult, printedUnit } from '@heuristor/core';
import { type PointerEvent, type RefObject, type WheelEvent, useEffect, useRef, useState } from 'react';
import { useBench } from '../stores/bench';
import { changeLine, endStep, holdStep, useWorkings } from '../stores/workings';
import { type DrawnTrace, type Rendered } from '../workers/protocol';
import { addRegion } from './edits';
import { axisHeight, pixelOf, plotLeft, plotRight, valueAtPixel } from './geometry';
import { Offers } from './Offers';
import { RegionMarks } from './RegionMarks';

const shortestDrag = 5;
const zoomStep = 1.18;

interface Props {
  rendered: Rendered;
  width: number;
  front: Run | undefined;
  stack: RefObject<HTMLDivElement | null>;
}

/** Everything that is done with the pointer on the stack of traces: marking, reading, zooming. */
export function Overlay({ rendered, width, front, stack }: Props) {
  const layer = useRef<HTMLDivElement>(null);
  const [cursor, setCursor] = useState<number | null>(null);
  const drag = useRef<{
    at: number;
    series: SeriesRef | null;
    region: string | null;
    pan: boolean;
    from: number;
    to: number;
  } | null>(null);
  const lines = useWorkings((state) => state.workings.lines);
  const horizontal = useWorkings((state) => state.workings.horizontal);
  const selected = useBench((state) => state.selectedRegion);
  const { viewport } = rendered;
  const regions = lines.filter(
    (line): line is RegionLine => line.kind === 'region' && line.along === horizontal,
  );
  const chosen = regions.find(({ id }) => id === selected);

  const pixel = (event: { clientX: number }) =>
    event.clientX - (layer.current?.getBoundingClientRect().left ?? 0);

  const traceUnder = (clientY: number): SeriesRef | null => {
    for (const panel of stack.current?.querySelectorAll<HTMLElement>('[data-trace]') ?? []) {
      const { top, bottom } = panel.getBoundingClientRect();
      if (clientY >= top && clientY <= bottom)
        return rendered.traces.find(({ key }) => key === panel.dataset.trace)?.reference ?? null;
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
      ...viewport,
    };
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const here = pixel(event);
    setCursor(here);
    const { current } = drag;
    if (current === null) return;
    if (current.pan) {
      const shift = ((here - current.at) / width) * (current.to - current.from);
      useBench.setState({ viewport: { from: current.from - shift, to: current.to - shift } });
      return;
    }
    if (current.region === null && Math.abs(here - current.at) < shortestDrag) return;
    const ends = [valueAtPixel(current.at, viewport, width), valueAtPixel(here, viewport, width)];
    const [start, end] = [Math.min(...ends), Math.max(...ends)];
    if (current.region === null) {
      current.region = addRegion(start, end);
      holdStep();
      useBench.setState({ selectedRegion: current.region, selectedSeries: current.series });
    } else changeLine(current.region, { start, end });
  };
  const onPointerUp = () => {
    if (drag.current?.region === null && !drag.current.pan) useBench.setState({ selectedRegion: null });
    drag.current = null;
    endStep();
  };
  const onWheel = (event: WheelEvent) => {
    const here = valueAtPixel(pixel(event), viewport, width);
    const factor = event.deltaY > 0 ? zoomStep : 1 / zoomStep;
    useBench.setState({
      viewport: { from: here - (here - viewport.from) * factor, to: here + (viewport.to - here) * factor },
    });
  };
  useEffect(() => {
    // React listens to wheels passively; the page must not scroll while a trace is zoomed.
    const element = layer.current;
    const hold = (event: Event) => event.preventDefault();
    element?.addEventListener('wheel', hold, { passive: false });
    return () => element?.removeEventListener('wheel', hold);
  }, []);

  return (
    <div
      ref={layer}
      className="overlay"
      data-testid="overlay"
      style={{ left: plotLeft, right: plotRight }}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      onPointerLeave={() => setCursor(null)}
      onWheel={onWheel}
      onDoubleClick={() => useBench.setState({ viewport: null })}
    >
      {front?.gaps.map((gap) => {
        const left = Math.max(pixelOf(gap.from, viewport, width), 0);
        const right = Math.min(pixelOf(gap.to, viewport, width), width);
        return horizontal === 't' && right > left ? (
          <div
            key={`${gap.channel}${gap.from}`}
            className="gap-mark"
            style={{ left, width: right - left, bottom: axisHeight }}
          >
            gap
          </div>
        ) : null;
      })}
      <RegionMarks regions={regions} rendered={rendered} width={width} />
      {cursor !== null && drag.current === null && cursor >= 0 && cursor <= width && (
        <CursorReadings at={cursor} rendered={rendered} width={width} front={front} stack={stack} />
      )}
      {chosen !== undefined && <Offers region={chosen} rendered={rendered} width={width} />}
    </div>
  );
}

function CursorReadings({ at, rendered, width, front, stack }: Props & { at: number }) {
  const value = valueAtPixel(at, rendered.viewport, width);
  const top = stack.current?.getBoundingClientRect().top ?? 0;
  const panels = [...(stack.current?.querySelectorAll<HTMLElement>('[data-trace]') ?? [])];
  return (
    <>
      <div className="cursor-line" style={{ left: at, bottom: axisHeight }} />
      {rendered.traces.map((trace) => {
        const panel = panels.find(({ dataset }) => dataset.trace === trace.key);
        const reading = readingAt(trace, front?.id, value);
        if (panel === undefined || reading === null) return null;
        const style = {
          top: panel.getBoundingClientRect().top - top - 10 + 32,
          ...(at < width - 180 ? { left: at + 6 } : { right: width - at + 6 }),
        };
        const unit = printedUnit(trace.unit);
        return (
          <div key={trace.key} className="cursor-value" style={style}>
            {trace.symbol} = {reading}
            {unit === '' ? '' : ` ${unit}`}
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
