import { type KeyboardEvent, type RefObject, useRef } from 'react';
import { useStore } from 'zustand';
import { usePicture, useSession, useView } from '../../investigation/context';
import { useDrag } from '../../ui/useDrag';
import { type Sight } from '../../workers/protocol';
import { plotLayout, plotOf } from '../axes/panelPlot';
import { type DrawnTrace } from '../drawn';
import { type PlotBox } from '../labels/labelPlaces';
import { quantityPaint } from '../lineColour';
import { withLegendAt } from '../pages/pages';
import { type LegendPlace, emptiestCorner, legendRows } from './legendPlace';

/** The legends of traces that show several quantities, over them. */
export function LegendLayer({ stack }: { stack: RefObject<HTMLDivElement | null> }) {
  const traces = usePicture((picture) => picture.traces);
  const frame = usePicture((picture) => picture.frame);
  const width = useView(({ plotWidth }) => plotWidth);
  useStore(plotLayout);
  const several = traces.filter((trace) => legendRows(trace).length > 0);
  // Without a legend nobody asks where anything lies, which makes a browser lay out the page.
  if (frame === null || several.length === 0) return null;
  const top = stack.current?.querySelector('.overlay')?.getBoundingClientRect().top ?? 0;
  return several.map((trace) => {
    const panel = stack.current?.querySelector<HTMLElement>(`[data-trace="${CSS.escape(trace.key)}"]`);
    const plot = panel == null ? null : plotOf(panel, top);
    if (plot === null) return null;
    return (
      <Legend
        key={trace.key}
        trace={trace}
        sight={frame.sight}
        box={{ left: 0, width, top: plot.top, height: plot.height }}
      />
    );
  });
}

interface Props {
  trace: DrawnTrace;
  sight: Sight;
  box: PlotBox;
}

const shortestDrag = 3;
const keyStep = 12;
const share = (value: number) => Math.min(Math.max(value, 0), 1);

function Legend({ trace, sight, box }: Props) {
  const session = useSession();
  const element = useRef<HTMLDivElement>(null);
  // One that nobody has moved goes to where least is hidden.
  const { x, y } = trace.legend ?? emptiestCorner(trace, sight);
  const moveFrom = (from: LegendPlace, dx: number, dy: number) => {
    const { offsetWidth = 0, offsetHeight = 0 } = element.current ?? {};
    const room = { x: Math.max(box.width - offsetWidth, 1), y: Math.max(box.height - offsetHeight, 1) };
    const to = { x: share(from.x + dx / room.x), y: share(from.y + dy / room.y) };
    session.changePage((page, runs) => withLegendAt(page, runs, trace.key, to));
  };
  const { handlers } = useDrag({
    shortest: shortestDrag,
    begin: ({ button }) => (button === 0 ? { x, y } : null),
    move: (before, { by }) => {
      session.move();
      moveFrom(before, by.x, by.y);
    },
    drop: () => session.settle(),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const moves: Record<string, readonly [number, number]> = {
      ArrowLeft: [-keyStep, 0],
      ArrowRight: [keyStep, 0],
      ArrowUp: [0, -keyStep],
      ArrowDown: [0, keyStep],
    };
    const move = moves[event.key];
    if (move === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    moveFrom({ x, y }, ...move);
  };
  const rows = legendRows(trace);
  return (
    <div
      ref={element}
      className="legend"
      data-legend={trace.key}
      style={{
        left: box.left + x * box.width,
        top: box.top + y * box.height,
        transform: `translate(${-100 * x}%, ${-100 * y}%)`,
      }}
      role="group"
      tabIndex={0}
      aria-label={`Legend: ${rows.map(({ text }) => text).join(', ')}`}
      title="Drag it, or move it with the arrow keys"
      {...handlers}
      onKeyDown={onKeyDown}
    >
      {rows.map(({ text, place }) => (
        <span key={place}>
          <i style={{ background: quantityPaint(place) }} aria-hidden />
          {text}
        </span>
      ))}
    </div>
  );
}
