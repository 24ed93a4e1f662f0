import { useEffect, useRef, useState } from 'react';
import { type Quantity } from '../../sensors/sensors';
import { Thread, type ThreadScale } from '../../sensors/Thread';

interface Props {
  quantity: Quantity;
  /** In the unit in which the quantity is shown. */
  level: number;
  onLevel: (level: number) => void;
  height?: number;
}

/** The last ten seconds of a quantity with a level across them that a hand can drag. */
export function LevelTrace({ quantity, level, onLevel, height = 110 }: Props) {
  const { stream, index, channel } = quantity;
  const frame = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState<number | null>(null);
  const [scale, setScale] = useState<ThreadScale | null>(null);
  const held = useRef<ThreadScale | null>(null);
  useEffect(() => setDragged(null), [level]);
  const value = dragged ?? level;
  const place = scale === null ? 0.5 : (scale.max - value) / (scale.max - scale.min);
  const digits = Math.max(0, Math.ceil(-Math.log10(Math.max(channel.noise, channel.resolution, 1e-9))));
  const rounded = (raw: number) => Number(raw.toFixed(Math.min(digits, 12)));
  const at = (clientY: number): number => {
    const box = frame.current?.getBoundingClientRect();
    const { current } = held;
    if (box === undefined || current === null) return value;
    const share = Math.min(Math.max((clientY - box.top) / box.height, 0), 1);
    return rounded(current.max - share * (current.max - current.min));
  };
  const step = scale === null ? 0 : (scale.max - scale.min) / 50;
  return (
    <div className="level-trace" ref={frame} style={{ height }}>
      <Thread
        handle={stream.handle}
        index={index}
        channel={channel}
        rate={stream.liveRate}
        // While a hand holds the level, the scale under it stands still.
        include={dragged === null ? level : null}
        onScale={(next) => {
          if (dragged === null) setScale(next);
        }}
      />
      <div
        className={`level-line ${place < 0.15 ? 'high' : ''}`}
        style={{ top: `${Math.min(Math.max(place, 0), 1) * 100}%` }}
        role="slider"
        tabIndex={0}
        aria-label={`Level on the live trace of ${channel.symbol}`}
        aria-valuenow={value}
        aria-valuemin={channel.low}
        aria-valuemax={channel.high}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = scale;
          setDragged(value);
        }}
        onPointerMove={(event) => {
          if (dragged !== null) setDragged(at(event.clientY));
        }}
        onPointerUp={() => {
          if (dragged !== null && dragged !== level) onLevel(dragged);
          else setDragged(null);
        }}
        onPointerCancel={() => setDragged(null)}
        onKeyDown={(event) => {
          const up = event.key === 'ArrowUp';
          if (!up && event.key !== 'ArrowDown') return;
          event.preventDefault();
          onLevel(rounded(value + (up ? step : -step)));
        }}
      >
        <span className="mono">{String(rounded(value)).replace('-', '−')}</span>
      </div>
    </div>
  );
}
