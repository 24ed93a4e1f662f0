import { useInvestigation } from '../../investigation/context';
import { type Quantity } from '../../sensors/sensors';
import { rateFault } from '../../sensors/rateFault';
import { RateField } from '../../ui/RateField';

/** The rate of every stream that takes part. */
export function RateEditor({ quantities }: { quantities: readonly Quantity[] }) {
  const session = useInvestigation();
  const streams = [...new Map(quantities.map((quantity) => [quantity.stream.handle, quantity])).values()];
  return (
    <div className="editor-rows">
      {streams.map(({ device, stream }) => {
        const { rates, key, rate, sampling, channels } = stream;
        const symbols = channels.filter(({ on }) => on).map(({ symbol }) => symbol);
        return (
          <div key={stream.handle} className="editor-row">
            <span>
              {symbols.join(', ')} <span className="mono quiet small">{device.code}</span>
            </span>
            {sampling === 'regular' ? (
              <RateField
                label={`Sample rate of ${device.code}${device.streams.length > 1 ? `, ${symbols.join(', ')}` : ''}`}
                value={rate}
                check={(wanted) => rateFault(device.code, rates, wanted)}
                onCommit={(wanted) =>
                  void session.sensors.setUp(
                    device.code,
                    { rates: { [key]: wanted } },
                    { rates: { [key]: rate } },
                  )
                }
              />
            ) : (
              <span className="quiet">every edge</span>
            )}
          </div>
        );
      })}
      <p className="quiet small">
        80 Hz, 25 ms or 6 an hour. 20 readings in a period of what moves show it well: 40 Hz for two swings a
        second.
      </p>
    </div>
  );
}
