import { type DeviceChannel } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { useEffect, useRef } from 'react';
import { threadOf } from './devices';
import { onTick } from '../ui/ticker';
import { UnitText } from '../ui/UnitText';
import { written } from '../ui/numberText';

const patienceSeconds = 0.5;

interface Props {
  handle: number;
  index: number;
  channel: DeviceChannel;
  /** How often it is read, in hertz: a slow sensor's last reading stands until the next. */
  rate: number;
  /** The reading that counts as zero here. */
  from?: number;
  /** Whether its symbol stands before it, to tell it from others of the device. */
  named?: boolean;
}

const atLimit = 'at its limit';

/** The present reading, large; a lone lost echo is passed over, a lasting one is said. */
export function LiveReading({ handle, index, channel, rate, from = 0, named = false }: Props) {
  const { low, high, noise, resolution } = channel;
  const text = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const step = Math.max(noise, resolution);
    const decimals = step > 0 ? Math.max(0, -Math.floor(Math.log10(step))) : 3;
    const patience = Math.max(patienceSeconds, 1.5 / rate);
    return onTick(() => {
      const { times, values } = threadOf(handle, index);
      const now = performance.now() / 1000;
      let shown = '—';
      for (let i = values.length - 1; i >= 0 && times[i] > now - patience; i--) {
        if (!(values[i] > low && values[i] < high)) {
          shown = atLimit;
          continue;
        }
        const value = (values[i] - from).toFixed(decimals);
        // What rounds to nothing has no minus sign.
        const isNegative = value.startsWith('-') && Number(value) !== 0;
        shown = written(isNegative ? `−${value.slice(1)}` : `+${value.replace('-', '')}`);
        break;
      }
      if (text.current === null || text.current.textContent === shown) return;
      text.current.textContent = shown;
      text.current.classList.toggle('in-words', shown === atLimit);
    });
  }, [handle, index, rate, from, low, high, noise, resolution]);
  return (
    <div className={`reading ${named ? 'named' : ''}`} data-testid={`reading-${channel.symbol}`}>
      {named && <span className="of">{channel.symbol}</span>}
      <span ref={text}>—</span>
      <span className="unit">
        <UnitText unit={parseUnit(channel.unit)} />
      </span>
    </div>
  );
}
