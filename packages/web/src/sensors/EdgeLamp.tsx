import { type DeviceStream } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { threadOf } from './devices';
import { onTick } from '../ui/ticker';
import { fixedText } from '../ui/numberText';

interface Props {
  stream: DeviceStream;
  index: number;
}

interface Seen {
  state: number | null;
  /** How long the last stretch of being on or blocked lasted, in seconds. */
  lasted: number | null;
}

/** Whether a beam is blocked or clear, or a switch on or off, and how long it last was. */
export function EdgeLamp({ stream, index }: Props) {
  const { handle, edges, channels, states } = stream;
  const [seen, setSeen] = useState<Seen>({ state: null, lasted: null });
  useEffect(
    () =>
      onTick(() => {
        const { standing, lasted } = threadOf(handle, index);
        setSeen((before) =>
          before.state === standing && before.lasted === lasted ? before : { state: standing, lasted },
        );
      }),
    [handle, index],
  );
  const state = seen.state ?? states[index];
  const [on, off] = edges?.of === 'beam' ? ['blocked', 'clear'] : ['on', 'off'];
  const channel = channels[index];
  return (
    <div className="edge-lamp" data-testid={`lamp-${channel.symbol}`}>
      <span className={`lamp ${state === 1 ? 'lit' : ''} ${state === null ? 'unknown' : ''}`} aria-hidden />
      <span>
        <span className="of">{channel.symbol}</span>{' '}
        {state === null ? `not seen yet` : state === 1 ? on : off}
      </span>
      {seen.lasted !== null && (
        <span className="mono quiet small lasted" title={`How long it was last ${on}`}>
          {lastedWords(seen.lasted)}
        </span>
      )}
    </div>
  );
}

const lastedWords = (seconds: number) =>
  seconds < 1 ? `${fixedText(seconds * 1000, 2)} ms` : `${fixedText(seconds, 3)} s`;
