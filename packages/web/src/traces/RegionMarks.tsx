import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { useSession, useView } from '../investigation/context';
import { highlighter } from '../runs/runStyles';
import { type Frame } from './drawn';
import { type RegionBounds, axisHeight, pixelOf, valueAtPixel } from './geometry';

/** Pixels below which the handles of a region stand outside it. */
const narrow = 44;

interface Props {
  regions: RegionBounds[];
  frame: Frame;
  width: number;
  /** Told when a hand takes hold of an end. */
  onGrab: () => void;
}

/** The lettered tabs of the regions and the handles at their ends. */
export function RegionMarks({ regions, frame, width, onGrab }: Props) {
  const session = useSession();
  const selected = useView(({ selectedRegion }) => selectedRegion);
  const { sight, step } = frame;
  return (
    <>
      {regions.map((region) => {
        const { id, letter, name, start, end } = region;
        const { fill, edge } = highlighter(letter);
        const left = pixelOf(start, sight, width);
        if (left > width || pixelOf(end, sight, width) < 0) return null;
        return (
          <div key={id}>
            <button
              className={`region-tab ${selected === id ? 'selected' : ''}`}
              style={{ left: Math.max(left, 0), background: fill }}
              aria-pressed={selected === id}
              aria-label={`Region ${letter} ${name}`.trim()}
              onClick={() => session.view.setState({ selectedRegion: id })}
            >
              {letter}
              {name !== '' && <span className="region-called"> {name}</span>}
            </button>
            {(['start', 'end'] as const).map((side) => (
              <Handle
                key={side}
                region={region}
                side={side}
                edge={edge}
                pixel={pixelOf(region[side], sight, width)}
                isNarrow={pixelOf(end, sight, width) - left < narrow}
                toValue={(pixels) => valueAtPixel(pixels, sight, width)}
                step={step}
                width={width}
                onGrab={onGrab}
              />
            ))}
          </div>
        );
      })}
    </>
  );
}

interface HandleProps {
  region: RegionBounds;
  side: 'start' | 'end';
  edge: string;
  pixel: number;
  /** Whether both handles have no room within the region. */
  isNarrow: boolean;
  toValue: (pixel: number) => number;
  step: number;
  width: number;
  onGrab: () => void;
}

function Handle({ region, side, edge, pixel, isNarrow, toValue, step, width, onGrab }: HandleProps) {
  const session = useSession();
  const dragging = useRef(false);
  /** By how much the other end is further, when a hand took this one. */
  const width0 = useRef(0);
  /** Where a pointer would be at the beginning of the traces, held as it is: asked once, since asking makes a browser lay out the page. */
  const left = useRef(0);
  if (pixel < -6 || pixel > width + 6) return null;
  const other = side === 'start' ? 'end' : 'start';
  /** @param keepsWidth where the other end goes along */
  const move = (value: number, keepsWidth: boolean) => {
    if (keepsWidth) {
      session.regions.placeOnAxis(region.id, { [side]: value, [other]: value + width0.current });
      return;
    }
    const far = region.cut[other];
    // The ends of a region never cross.
    const kept = side === 'start' ? Math.min(value, far - step / 2) : Math.max(value, far + step / 2);
    session.regions.placeOnAxis(region.id, { [side]: kept });
  };
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    dragging.current = true;
    width0.current = region.cut[other] - region.cut[side];
    // A handle lies beside its edge: the edge does not jump to the pointer.
    left.current = event.clientX - pixel;
    onGrab();
    session.view.setState({ selectedRegion: region.id });
  };
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    if (!dragging.current) return;
    event.stopPropagation();
    session.move();
    move(toValue(event.clientX - left.current), event.shiftKey);
  };
  const letGo = () => {
    if (!dragging.current) return;
    dragging.current = false;
    session.settle();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (direction === 0) return;
    event.preventDefault();
    event.stopPropagation();
    width0.current = region.cut[other] - region.cut[side];
    move(region.cut[side] + direction * step * (event.shiftKey ? 10 : 1), event.altKey);
  };
  return (
    <div
      className={`region-handle ${side} ${isNarrow ? 'outside' : ''}`}
      role="slider"
      tabIndex={0}
      aria-label={`${side === 'start' ? 'Start' : 'End'} of region ${region.letter}`}
      aria-valuenow={region[side]}
      aria-valuetext={region[side].toPrecision(5)}
      title="Drag. With Shift held, the region keeps its width."
      style={{ left: pixel, bottom: axisHeight(), color: edge }}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={letGo}
      onPointerCancel={letGo}
      onLostPointerCapture={letGo}
      onKeyDown={onKeyDown}
    />
  );
}
