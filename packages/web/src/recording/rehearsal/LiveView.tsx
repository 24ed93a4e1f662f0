import { type Plan } from '@heuristor/contracts';
import { useState } from 'react';
import { Form } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { EdgeLamp } from '../../sensors/EdgeLamp';
import { LiveReading } from '../../sensors/LiveReading';
import { type Quantity } from '../../sensors/sensors';
import { useQuantities } from '../../sensors/useQuantities';
import { type LiveLevel } from '../plan/LevelLine';
import { LevelTrace } from '../plan/LevelTrace';

/** More than these don't stand over each other. */
const mostTraces = 4;
const lengths = [5, 10, 30, 60];
const usualLength = 10;

/** What the sensors read, large, over the last seconds, with the levels of the plan: here a run is rehearsed. */
export function LiveView() {
  const quantities = useQuantities();
  const [seconds, setSeconds] = useState(usualLength);
  const sampled = quantities.filter(({ stream }) => stream.sampling !== 'events');
  const switched = quantities.filter(({ stream }) => stream.sampling === 'events');
  return (
    <section className="live-view" aria-label="Live">
      <header>
        <h2>Live</h2>
        <span className="quiet">
          Nothing of this is kept. Rehearse it: does it move, is its zero right, is it within reach?
        </span>
        <Form.Select
          aria-label="How far back the live traces look"
          value={seconds}
          onChange={({ target }) => setSeconds(Number(target.value))}
        >
          {lengths.map((length) => (
            <option key={length} value={length}>
              last {length} s
            </option>
          ))}
        </Form.Select>
      </header>
      {sampled.slice(0, mostTraces).map((quantity) => (
        <LiveTrace key={quantity.key} quantity={quantity} seconds={seconds} />
      ))}
      {switched.map(({ key, stream, index }) => (
        <div key={key} className="live-lamp">
          <EdgeLamp stream={stream} index={index} />
        </div>
      ))}
      {sampled.length > mostTraces && (
        <p className="quiet">
          {sampled.length - mostTraces} more{' '}
          {sampled.length === mostTraces + 1 ? 'quantity reads' : 'quantities read'} live on the cards at the
          left.
        </p>
      )}
    </section>
  );
}

function LiveTrace({ quantity, seconds }: { quantity: Quantity; seconds: number }) {
  const session = useInvestigation();
  const { stream, index, channel, key } = quantity;
  const begin = useDocuments(({ plan }) => plan.begin);
  const end = useDocuments(({ plan }) => plan.end);
  const levels = [
    levelOf(quantity, begin, 'begins', (level) =>
      session.plan.change({ begin: { ...(begin as LevelPart<Plan['begin']>), level } }),
    ),
    levelOf(quantity, end, 'ends', (level) =>
      session.plan.change({ end: { ...(end as LevelPart<Plan['end']>), level } }),
    ),
  ].filter((level) => level !== null);
  return (
    <div className="live-trace" data-live={key}>
      <LiveReading handle={stream.handle} index={index} channel={channel} rate={stream.liveRate} named />
      <LevelTrace quantity={quantity} levels={levels} height="100%" seconds={seconds} hasAxes />
    </div>
  );
}

type LevelPart<Part> = Extract<Part, { kind: 'level' }>;
type Level = LevelPart<Plan['begin']>['level'];

/** A level of the plan that lies on a quantity as it is read; of what begins at zero in every run, the live reading says nothing about it. */
function levelOf(
  { key, channel }: Quantity,
  part: Plan['begin'] | Plan['end'],
  word: string,
  change: (level: Level) => Promise<unknown>,
): LiveLevel | null {
  if (part.kind !== 'level') return null;
  const { level } = part;
  const isRead = level.quantity === key && level.of === 'reading' && level.unit === channel.unit;
  if (!isRead || channel.zeroAtStart) return null;
  return { word, value: level.value, onMove: (value) => void change({ ...level, value }) };
}
