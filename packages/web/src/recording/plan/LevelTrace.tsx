import { useRef, useState } from 'react';
import { type Quantity } from '../../sensors/sensors';
import { Thread, type ThreadScale } from '../../sensors/Thread';
import { LevelLine, type LiveLevel } from './LevelLine';

interface Props {
  quantity: Quantity;
  levels: readonly LiveLevel[];
  height?: number | string;
  seconds?: number;
  hasAxes?: boolean;
}

/** The last seconds of a quantity, with levels across them that a hand can drag. */
export function LevelTrace({ quantity, levels, height = 110, seconds, hasAxes }: Props) {
  const { stream, index, channel } = quantity;
  const frame = useRef<HTMLDivElement>(null);
  const [scale, setScale] = useState<ThreadScale | null>(null);
  const [isHeld, setHeld] = useState(false);
  return (
    <div className={`level-trace ${hasAxes === true ? 'plot' : ''}`} ref={frame} style={{ height }}>
      <Thread
        handle={stream.handle}
        index={index}
        channel={channel}
        rate={stream.liveRate}
        // While a hand holds a level, the scale under it stands still.
        include={isHeld || levels.length === 0 ? null : levels.map(({ value }) => value)}
        seconds={seconds}
        hasAxes={hasAxes}
        onScale={(next) => {
          if (!isHeld) setScale(next);
        }}
      />
      {levels.map((level) => (
        <LevelLine
          key={level.word}
          channel={channel}
          level={level}
          scale={scale}
          frame={frame}
          onHold={setHeld}
        />
      ))}
    </div>
  );
}
