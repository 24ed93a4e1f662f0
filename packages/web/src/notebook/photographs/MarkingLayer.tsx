import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { useNotebook } from '../context';
import { type Mark, type MarkKind, type NamedMark, type Place } from './marks';
import { markTitles } from './markWords';

interface Props {
  id: string;
  marks: readonly NamedMark[];
  /** What the next stroke makes; null while only what is there is moved. */
  tool: MarkKind | null;
  onMade: (kind: MarkKind, from: Place, to: Place) => void;
}

/** By so much an arrow key moves an end, as a share of the picture. */
const byKey = 0.01;
/** A stroke shorter than this, as a share of the picture, is a press. */
const press = 0.01;

const clamped = (share: number) => Math.min(Math.max(share, 0), 1);

/** The ends of a mark, by the names that they have in it. */
const endsOf = (mark: Mark): [name: 'from' | 'to' | 'at', at: Place][] =>
  mark.kind === 'words'
    ? [['at', mark.at]]
    : [
        ['from', mark.from],
        ['to', mark.to],
      ];

/** Lies over a photograph while it is marked: strokes make marks, and their ends are moved by hand or by keys. */
export function MarkingLayer({ id, marks, tool, onMade }: Props) {
  const notebook = useNotebook();
  const layer = useRef<SVGSVGElement>(null);
  const [stroke, setStroke] = useState<{ from: Place; to: Place } | null>(null);
  const [held, setHeld] = useState<{ mark: string; end: string } | null>(null);

  const placeOf = ({ clientX, clientY }: PointerEvent): Place => {
    const { left, top, width, height } = layer.current?.getBoundingClientRect() ?? new DOMRect(0, 0, 1, 1);
    return [clamped((clientX - left) / width), clamped((clientY - top) / height)];
  };
  const move = (mark: NamedMark, end: string, at: Place) => {
    const { id: name, ...rest } = mark;
    notebook.mark(id, name, { ...rest, [end]: at } as Mark, 'move a mark');
  };
  const keyed = (event: KeyboardEvent, mark: NamedMark, end: string, [x, y]: Place) => {
    const steps: Partial<Record<string, Place>> = {
      ArrowLeft: [-byKey, 0],
      ArrowRight: [byKey, 0],
      ArrowUp: [0, -byKey],
      ArrowDown: [0, byKey],
    };
    const step = steps[event.key];
    if (event.key === 'Delete' || event.key === 'Backspace')
      notebook.mark(id, mark.id, null, 'remove a mark');
    else if (step !== undefined) move(mark, end, [clamped(x + step[0]), clamped(y + step[1])]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const percent = (share: number) => `${100 * share}%`;
  return (
    <svg
      ref={layer}
      className={`marking${tool === null ? '' : ' with-tool'}`}
      onPointerDown={(event) => {
        if (tool === null || event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        const at = placeOf(event);
        setStroke({ from: at, to: at });
      }}
      onPointerMove={(event) => {
        if (stroke !== null) setStroke({ from: stroke.from, to: placeOf(event) });
        const mark = held === null ? undefined : marks.find((one) => one.id === held.mark);
        if (held !== null && mark !== undefined) move(mark, held.end, placeOf(event));
      }}
      onPointerUp={(event) => {
        setHeld(null);
        setStroke(null);
        if (tool === null || stroke === null) return;
        // Where it is let go; what was drawn last on the way may be short of that.
        const [{ from }, to] = [stroke, placeOf(event)];
        const isPress = Math.hypot(to[0] - from[0], to[1] - from[1]) < press;
        // A line that is only pressed begins there and can be pulled out.
        onMade(tool, from, isPress && tool !== 'words' ? [clamped(from[0] + 0.15), from[1]] : to);
      }}
      onPointerCancel={() => {
        setHeld(null);
        setStroke(null);
      }}
    >
      {stroke !== null && tool !== 'words' && (
        <line
          className="stroke"
          x1={percent(stroke.from[0])}
          y1={percent(stroke.from[1])}
          x2={percent(stroke.to[0])}
          y2={percent(stroke.to[1])}
        />
      )}
      {marks.flatMap((mark, i) =>
        endsOf(mark).map(([end, at]) => (
          <circle
            key={`${mark.id}/${end}`}
            className="mark-end"
            cx={percent(at[0])}
            cy={percent(at[1])}
            r="7"
            tabIndex={0}
            role="button"
            aria-label={`${markTitles[mark.kind]} ${i + 1}: ${end === 'at' ? 'where it stands' : end === 'from' ? 'one end' : 'other end'}; arrow keys move it, Delete removes it`}
            onKeyDown={(event) => keyed(event, mark, end, at)}
            onPointerDown={(event) => {
              if (event.button !== 0) return;
              event.stopPropagation();
              layer.current?.setPointerCapture(event.pointerId);
              setHeld({ mark: mark.id, end });
            }}
          />
        )),
      )}
    </svg>
  );
}
