import { type KeyboardEvent } from 'react';
import { useSession, useView } from '../investigation/context';
import { useDrag } from '../ui/useDrag';
import { highlighterPaint } from '../runs/runStyles';
import { type Frame } from './drawn';
import { type RegionBounds, axisHeight, pixelOf, valueAtPixel } from './geometry';

/** Pixels below which the handles of a region stand outside it. */
const narrow = 44;

interface Props {
  regions: RegionBounds[];
  frame: Frame;
  width: number;
  /** Called when a hand takes hold of an end. */
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
        const { fill, edge } = highlighterPaint(letter);
        const left = pixelOf(start, sight, width);
        if (left > width || pixelOf(end, sight, width) < 0) return null;
        return (
          <div key={id}>
            <button
              className={`region-tab ${selected === id ? 'selected' : ''}`}
              style={{ left: Math.max(left, 0), background: fill }}
              aria-pressed={selected === id}
              aria-label={`Region ${letter} ${name}`.trim()}
              onClick={() => session.viewing.selectRegion(id)}
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
  const other = side === 'start' ? 'end' : 'start';
  /** @param width by how much the other end is further and goes along; null where it stays */
  const move = (value: number, width: number | null) => {
    if (width !== null) {
      session.regions.placeOnAxis(region.id, { [side]: value, [other]: value + width });
      return;
    }
    const far = region.cut[other];
    // The ends of a region never cross.
    const kept = side === 'start' ? Math.min(value, far - step / 2) : Math.max(value, far + step / 2);
    session.regions.placeOnAxis(region.id, { [side]: kept });
  };
  const widthOf = () => region.cut[other] - region.cut[side];
  const { handlers } = useDrag({
    shortest: 0,
    begin: () => {
      onGrab();
      session.viewing.selectRegion(region.id);
      // A handle lies beside its edge: the edge does not jump to the pointer.
      return { pixel, width: widthOf() };
    },
    move: (began, { by }, { shiftKey }) => {
      session.move();
      move(toValue(began.pixel + by.x), shiftKey ? began.width : null);
    },
    drop: () => session.settle(),
  });
  if (pixel < -6 || pixel > width + 6) return null;
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (direction === 0) return;
    event.preventDefault();
    event.stopPropagation();
    move(region.cut[side] + direction * step * (event.shiftKey ? 10 : 1), event.altKey ? widthOf() : null);
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
      {...handlers}
      onKeyDown={onKeyDown}
    />
  );
}
