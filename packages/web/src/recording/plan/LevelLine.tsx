import { type DeviceChannel } from '@heuristor/contracts';
import { type RefObject, useEffect, useState } from 'react';
import { type ThreadScale } from '../../sensors/Thread';

/** A level across a live trace. */
export interface LiveLevel {
  /** What it is for, where there are several: "begins", "ends". */
  word: string;
  /** In the unit in which the quantity is shown. */
  value: number;
  onMove: (value: number) => void;
}

interface Props {
  channel: DeviceChannel;
  level: LiveLevel;
  /** How the trace under it is scaled; null before it has read anything. */
  scale: ThreadScale | null;
  frame: RefObject<HTMLDivElement | null>;
  onHold: (isHeld: boolean) => void;
}

/** Fifty presses of an arrow key go from one end of what is seen to the other. */
const keySteps = 50;

/** A level on a live trace: dragged by a hand, or moved by the arrow keys. */
export function LevelLine({ channel, level, scale, frame, onHold }: Props) {
  const { value: set, word, onMove } = level;
  const [dragged, setDragged] = useState<number | null>(null);
  useEffect(() => setDragged(null), [set]);
  const value = dragged ?? set;
  const share = scale === null ? 0.5 : (scale.max - value) / (scale.max - scale.min);
  const inside = Math.min(Math.max(share, 0), 1);
  const digits = Math.max(0, Math.ceil(-Math.log10(Math.max(channel.noise, channel.resolution, 1e-9))));
  const rounded = (raw: number) => Number(raw.toFixed(Math.min(digits, 12)));
  const at = (clientY: number): number => {
    const box = frame.current?.getBoundingClientRect();
    if (box === undefined || scale === null) return value;
    const along = (clientY - box.top - scale.top) / (scale.bottom - scale.top);
    return rounded(scale.max - Math.min(Math.max(along, 0), 1) * (scale.max - scale.min));
  };
  const letGo = () => onHold(false);
  const step = scale === null ? 0 : (scale.max - scale.min) / keySteps;
  const text = String(rounded(value)).replace('-', '\u2212');
  return (
    <div
      className={`level-line ${inside < 0.15 ? 'high' : ''}`}
      style={{
        top: scale === null ? '50%' : `${scale.top + inside * (scale.bottom - scale.top)}px`,
      }}
      role="slider"
      tabIndex={0}
      aria-label={`Level on the live trace of ${channel.symbol}${word === '' ? '' : `: the run ${word}`}`}
      aria-valuenow={value}
      aria-valuemin={channel.low}
      aria-valuemax={channel.high}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDragged(value);
        onHold(true);
      }}
      onPointerMove={(event) => {
        if (dragged !== null) setDragged(at(event.clientY));
      }}
      onPointerUp={() => {
        letGo();
        if (dragged !== null && dragged !== set) onMove(dragged);
        else setDragged(null);
      }}
      onPointerCancel={() => {
        letGo();
        setDragged(null);
      }}
      onKeyDown={(event) => {
        const up = event.key === 'ArrowUp';
        if (!up && event.key !== 'ArrowDown') return;
        event.preventDefault();
        onMove(rounded(value + (up ? step : -step)));
      }}
    >
      <span className="mono">
        {word} {text}
      </span>
    </div>
  );
}
