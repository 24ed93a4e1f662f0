import { type KeyboardEvent, type PointerEvent, type RefObject, useRef } from 'react';
import { type Act } from './scene';

interface Options {
  svg: RefObject<SVGSVGElement | null>;
  /** Position of the apparatus under a point of the drawing. */
  positionAt: (x: number, y: number) => number;
  position: number;
  /** Change of position for one press of an arrow key towards the sensor. */
  keyStep: number;
  act: Act;
}

/** Taking hold of something in a drawing, with the pointer or with arrow keys and Enter. */
export function useGrab({ svg, positionAt, position, keyStep, act }: Options) {
  const offset = useRef<number | null>(null);
  const at = (event: PointerEvent): number => {
    const matrix = svg.current?.getScreenCTM();
    if (matrix === null || matrix === undefined) return position;
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return positionAt(point.x, point.y);
  };
  const letGo = () => {
    if (offset.current !== null) act({ action: 'release' });
    offset.current = null;
  };
  return {
    className: 'grabbable',
    tabIndex: 0,
    role: 'slider' as const,
    'aria-valuenow': Number(position.toFixed(3)),
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      offset.current = position - at(event);
      act({ action: 'grab', at: position });
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (offset.current !== null) act({ action: 'grab', at: at(event) + offset.current });
    },
    onPointerUp: letGo,
    // A touch that the system takes over lets go too: nothing stays held by nobody.
    onPointerCancel: letGo,
    onLostPointerCapture: letGo,
    onKeyDown: (event: KeyboardEvent) => {
      const away = event.key === 'ArrowUp' || event.key === 'ArrowLeft';
      const towards = event.key === 'ArrowDown' || event.key === 'ArrowRight';
      if (away || towards) act({ action: 'grab', at: position + (towards ? keyStep : -keyStep) });
      else if (event.key === 'Enter') act({ action: 'release' });
      else return;
      event.preventDefault();
    },
  };
}
