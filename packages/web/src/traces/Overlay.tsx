import { type Run } from '@heuristor/contracts';
import { type KeyboardEvent, type PointerEvent, type RefObject, type WheelEvent, useRef } from 'react';
import { useDocuments, usePicture, useSession, useShownPage, useView } from '../investigation/context';
import { shiftOf } from '../runs/aligning';
import { plotOf } from './axes/panelPlot';
import { CursorLayer } from './cursor/CursorLayer';
import { marked, usable } from './axes/axisScale';
import { type RegionBounds, axisHeight, pixelOf, plotLeft } from './geometry';
import { type Doing } from './hand/hand';
import { type Place } from './hand/place';
import { type PlacedTrace, type Scene } from './hand/scene';
import { useHand } from './hand/useHand';
import { LabelLayer } from './labels/LabelLayer';
import { LegendLayer } from './legend/LegendLayer';
import { RegionMarks } from './RegionMarks';

interface Props {
  front: Run | undefined;
  stack: RefObject<HTMLDivElement | null>;
  regions: RegionBounds[];
  /** Pixels at the right of the plots. */
  roomRight: number;
}

/** The finger of a pointer; null of a mouse or a pen. */
const fingerOf = ({ pointerType, pointerId }: PointerEvent): number | null =>
  pointerType === 'touch' ? pointerId : null;

/** Everything that is done with the pointer on the stack of traces: marking, reading, zooming. */
export function Overlay({ front, stack, regions, roomRight }: Props) {
  const session = useSession();
  const layer = useRef<HTMLDivElement>(null);
  const [happen, doing] = useHand(front, layer);
  const frame = usePicture((picture) => picture.frame);
  const width = useView(({ plotWidth }) => plotWidth);
  const { horizontal } = useShownPage();
  const handMode = useView((view) => view.handMode);
  // Only on an axis of time can a run be moved in time.
  const mode = handMode === 'shift' && horizontal !== 't' ? 'usual' : handMode;
  const shift = useDocuments(({ workings }) => (front === undefined ? 0 : shiftOf(workings, front.id)));
  if (frame === null) return null;
  const { sight } = frame;

  const placeOf = ({ clientX, clientY }: { clientX: number; clientY: number }): Place => {
    const { left, top } = layer.current?.getBoundingClientRect() ?? { left: 0, top: 0 };
    return { x: clientX - left, y: clientY - top };
  };
  /** What unfolds from a label lies elsewhere on the page, though its events come by here. */
  const isHere = ({ target }: { target: EventTarget }) =>
    target instanceof Node && layer.current?.contains(target) === true;

  /** The trace at a height of the layer, with where its plot lies. */
  const traceAt = (y: number): PlacedTrace | null => {
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
  const scene = (): Scene => {
    const { sight: wanted, scales } = session.view.getState();
    return {
      sight,
      wantedSight: {
        ...(usable(wanted, sight.isLogarithmic) ?? sight),
        ...marked(sight.isLogarithmic),
      },
      width,
      horizontal,
      horizontalUnit: frame.horizontal.unit,
      mode,
      shift: front === undefined ? null : shift,
      scales,
      traceAt,
    };
  };
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.target !== layer.current || event.button > 1) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    happen(
      {
        kind: 'down',
        at: placeOf(event),
        finger: fingerOf(event),
        isMiddleButton: event.button === 1,
        isShift: event.shiftKey,
        isControl: event.ctrlKey || event.metaKey,
      },
      scene(),
    );
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    if (isHere(event)) happen({ kind: 'move', at: placeOf(event), finger: fingerOf(event) }, scene());
  };
  const onPointerUp = (event: PointerEvent) =>
    happen({ kind: 'up', at: placeOf(event), finger: fingerOf(event) }, scene());
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (direction === 0 || event.target !== layer.current) return;
    event.preventDefault();
    happen({ kind: 'arrow', direction, isShift: event.shiftKey }, scene());
  };
  const onWheel = (event: WheelEvent) => {
    if (!isHere(event)) return;
    // With Shift, browsers turn the wheel sideways.
    const turned = event.deltaY === 0 ? event.deltaX : event.deltaY;
    happen({ kind: 'wheel', at: placeOf(event), turned, isShift: event.shiftKey }, scene());
  };

  return (
    <div
      ref={layer}
      className={`overlay hand-${mode}`}
      data-testid="overlay"
      data-from={sight.from}
      data-to={sight.to}
      style={{ left: plotLeft(), right: roomRight }}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={() => happen({ kind: 'cancel' }, scene())}
      onLostPointerCapture={() => happen({ kind: 'lost' }, scene())}
      onPointerLeave={() => happen({ kind: 'leave' }, scene())}
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
      <RegionMarks regions={regions} frame={frame} width={width} onGrab={() => session.cursor.hover(null)} />
      <LegendLayer stack={stack} />
      <LabelLayer stack={stack} />
      <HandMarks doing={doing} />
      {mode === 'circle' && (
        <div className="circle-hint" role="status">
          Draw around readings{front === undefined ? '' : ` of ${front.name}`}. Escape leaves it.
        </div>
      )}
      <CursorLayer front={front} stack={stack} />
    </div>
  );
}

/** What is drawn of a hand: the box that it will look at, the line around readings. */
function HandMarks({ doing }: { doing: Doing }) {
  if (doing.is === 'boxing' && doing.to !== null) {
    const { at } = doing.press;
    const { to } = doing;
    return (
      <div
        className="look-box"
        style={{
          left: Math.min(at.x, to.x),
          width: Math.abs(to.x - at.x),
          top: Math.min(at.y, to.y),
          height: Math.abs(to.y - at.y),
        }}
      />
    );
  }
  if (doing.is !== 'circling') return null;
  return (
    <svg className="circle-line" aria-hidden>
      <polygon points={doing.path.map(({ x, y }) => `${x},${y}`).join(' ')} />
    </svg>
  );
}
