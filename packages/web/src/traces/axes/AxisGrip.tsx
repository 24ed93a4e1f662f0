import { type CSSProperties, type KeyboardEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { useSession } from '../../investigation/context';
import { useDrag } from '../../ui/useDrag';
import { Unfolded } from '../../ui/Unfolded';
import { type Sight } from '../../workers/protocol';
import { draggedAxis, gripAt, panned, zoomed } from './axisMoves';
import { valueAtShare } from './axisScale';
import { shortText } from '../../ui/numberText';

const shortestDrag = 4;
const zoomStep = 1.18;
const keyStep = 0.1;
const wheelRestMilliseconds = 180;

interface Props {
  /** Called "Axis of x". */
  label: string;
  range: Sight;
  isVertical: boolean;
  className: string;
  style?: CSSProperties;
  onRange: (range: Sight) => void;
  onAutomatic: () => void;
  /** What unfolds where the axis is pressed. */
  children: (close: () => void) => ReactNode;
}

/** The numbers of an axis as something to hold: dragged, stretched at their ends, turned by the wheel, pressed to be typed. */
export function AxisGrip({
  label,
  range,
  isVertical,
  className,
  style,
  onRange,
  onAutomatic,
  children,
}: Props) {
  const session = useSession();
  const element = useRef<HTMLDivElement>(null);
  const rest = useRef<ReturnType<typeof setTimeout> | null>(null);
  const [isOpen, setIsOpen] = useState(false);
  const [grip, setGrip] = useState<'from' | 'to' | 'all'>('all');
  useEffect(() => {
    const { current } = element;
    const hold = (event: Event) => event.preventDefault();
    current?.addEventListener('wheel', hold, { passive: false });
    return () => current?.removeEventListener('wheel', hold);
  }, []);

  /** Where along the axis a pointer is, 0 at its beginning. */
  const placeOf = (event: { clientX: number; clientY: number }): number => {
    const box = element.current?.getBoundingClientRect();
    if (box === undefined) return 0.5;
    return isVertical ? (box.bottom - event.clientY) / box.height : (event.clientX - box.left) / box.width;
  };
  const { isHeld, handlers } = useDrag({
    shortest: shortestDrag,
    begin: (event) => (event.button === 0 ? { place: placeOf(event), before: range } : null),
    move: ({ place, before }, _, event) => {
      session.move();
      onRange(draggedAxis(before, place, placeOf(event)));
    },
    drop: () => session.settle(),
    press: () => setIsOpen((open) => !open),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const moves: Record<string, () => void> = {
      [isVertical ? 'ArrowUp' : 'ArrowRight']: () => onRange(panned(range, keyStep)),
      [isVertical ? 'ArrowDown' : 'ArrowLeft']: () => onRange(panned(range, -keyStep)),
      '+': () => onRange(zoomed(range, valueAtShare(0.5, range), 1 / zoomStep)),
      '-': () => onRange(zoomed(range, valueAtShare(0.5, range), zoomStep)),
      Enter: () => setIsOpen(true),
      Home: onAutomatic,
    };
    const move = moves[event.key];
    if (move === undefined || event.target !== element.current) return;
    event.preventDefault();
    event.stopPropagation();
    move();
  };
  return (
    <>
      <div
        ref={element}
        className={`axis-grip ${isVertical ? 'upright' : 'level'} grip-${grip} ${className}`}
        style={style}
        role="button"
        tabIndex={0}
        aria-label={`${label}: ${shown(range.from)} to ${shown(range.to)}`}
        aria-expanded={isOpen}
        title="Drag to move, pull at an end to stretch, press to type"
        {...handlers}
        onPointerMove={(event) => {
          if (isHeld()) handlers.onPointerMove(event);
          else setGrip(gripAt(placeOf(event)));
        }}
        onDoubleClick={() => {
          setIsOpen(false);
          onAutomatic();
        }}
        onWheel={(event) => {
          const about = valueAtShare(placeOf(event), range);
          session.move();
          onRange(zoomed(range, about, event.deltaY > 0 ? zoomStep : 1 / zoomStep));
          if (rest.current !== null) clearTimeout(rest.current);
          rest.current = setTimeout(() => session.settle(), wheelRestMilliseconds);
        }}
        onKeyDown={onKeyDown}
      />
      <Unfolded
        title={label}
        target={element.current}
        show={isOpen}
        placement={isVertical ? 'right' : 'top'}
        onHide={() => setIsOpen(false)}
      >
        {children(() => setIsOpen(false))}
      </Unfolded>
    </>
  );
}

const shown = (value: number) => shortText(value, 4);
