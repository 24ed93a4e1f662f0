import { type LinkChannel } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { useEffect, useRef } from 'react';
import { threadOf } from '../stores/devices';
import { onTick } from '../stores/ticker';
import { UnitText } from '../ui/UnitText';

const patienceSeconds = 0.5;

interface Props {
  handle: number;
  index: number;
  channel: LinkChannel;
  low: number;
  high: number;
}

/** The present reading, large; a lone lost echo is passed over, a lasting one is said. */
export function LiveReading({ handle, index, channel, low, high }: Props) {
  const text = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const decimals = channel.noise > 0 ? Math.max(0, -Math.floor(Math.log10(channel.noise))) : 3;
    return onTick(() => {
      const { times, values } = threadOf(handle, index);
      const now = performance.now() / 1000;
      let shown = '—';
      for (let i = values.length - 1; i >= 0 && times[i] > now - patienceSeconds; i--) {
        if (!(values[i] > low && values[i] < high)) {
          shown = 'at its limit';
          continue;
        }
        const value = values[i].toFixed(decimals);
        shown = value.startsWith('-') ? `−${value.slice(1)}` : `+${value}`;
        break;
      }
      if (text.current !== null && text.current.textContent !== shown) text.current.textContent = shown;
    });
  }, [handle, index, channel, low, high]);
  return (
    <div className="reading" data-testid={`reading-${channel.symbol}`}>
      <span ref={text}>—</span>
      <span className="unit">
        <UnitText unit={parseUnit(channel.unit)} />
      </span>
    </div>
  );
}
