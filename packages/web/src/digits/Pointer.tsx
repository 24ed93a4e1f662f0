import { type DeviceChannel } from '@heuristor/contracts';
import { useEffect, useRef, useState } from 'react';
import { threadOf } from '../sensors/devices';
import { shortText } from '../ui/numberText';
import { onTick } from '../ui/ticker';
import { type Scale, scaleHolding, shareOn } from './scale';
import { type Tile } from './tiles';

/** The arc of the scale, in degrees from straight up. */
const reach = 60;
const [middleX, middleY, radius] = [50, 56, 44];
const marks = 10;

const at = (share: number, far: number) => {
  const angle = ((2 * share - 1) * reach * Math.PI) / 180;
  return { x: middleX + far * Math.sin(angle), y: middleY - far * Math.cos(angle) };
};

/** Noise is not to look like motion: a scale is at least so many times as long. */
const timesNoise = 30;

/** A value as a pointer on a scale with round ends, which grows where it has to. */
export function Pointer({ tile: { shows } }: { tile: Tile }) {
  return shows.kind === 'live' ? (
    <LivePointer
      handle={shows.quantity.stream.handle}
      index={shows.quantity.index}
      channel={shows.quantity.channel}
    />
  ) : (
    <ValuePointer value={shows.value.value} />
  );
}

function ValuePointer({ value }: { value: number }) {
  const [scale, setScale] = useState<Scale | null>(null);
  const next = scaleHolding(scale, value, Math.abs(value) || 1);
  useEffect(() => setScale(next), [next]);
  return <Dial scale={next} share={shareOn(next, value)} />;
}

function LivePointer({
  handle,
  index,
  channel: { low, high, noise, resolution },
}: {
  handle: number;
  index: number;
  channel: DeviceChannel;
}) {
  const least = timesNoise * Math.max(noise, resolution) || 1;
  const [shown, setShown] = useState<{ scale: Scale; share: number }>(() => ({
    scale: scaleHolding(null, 0, least),
    share: 0,
  }));
  const scale = useRef<Scale | null>(null);
  useEffect(
    () =>
      onTick(() => {
        const { values } = threadOf(handle, index);
        const value = values.at(-1) ?? NaN;
        // At its limit it measures nothing.
        if (!(value > low && value < high)) return;
        scale.current = scaleHolding(scale.current, value, least);
        setShown({ scale: scale.current, share: shareOn(scale.current, value) });
      }),
    [handle, index, low, high, least],
  );
  return <Dial {...shown} />;
}

function Dial({ scale, share }: { scale: Scale; share: number }) {
  const tip = at(share, radius - 2);
  const [left, right] = [at(0, radius), at(1, radius)];
  return (
    <svg
      className="dial"
      viewBox="0 0 100 60"
      role="img"
      aria-label={`From ${shortText(scale.low, 3)} to ${shortText(scale.high, 3)}`}
      data-turned={share.toFixed(3)}
    >
      <path d={`M${left.x},${left.y} A${radius},${radius} 0 0 1 ${right.x},${right.y}`} />
      {Array.from({ length: marks + 1 }, (_, i) => {
        const [inner, outer] = [at(i / marks, radius), at(i / marks, radius + (i % 5 === 0 ? 5 : 3))];
        return <line key={i} x1={inner.x} y1={inner.y} x2={outer.x} y2={outer.y} />;
      })}
      <text x={left.x} y={left.y + 9}>
        {shortText(scale.low, 3)}
      </text>
      <text x={right.x} y={right.y + 9}>
        {shortText(scale.high, 3)}
      </text>
      <line className="needle" x1={middleX} y1={middleY} x2={tip.x} y2={tip.y} />
      <circle className="needle" cx={middleX} cy={middleY} r="2.5" />
    </svg>
  );
}
