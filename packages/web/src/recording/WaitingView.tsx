import { type RecorderStatus } from '@heuristor/contracts';
import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../investigation/context';
import { levelWords } from './plan/planWords';
import { LiveReading } from '../sensors/LiveReading';
import { LevelTrace } from './plan/LevelTrace';
import { beep } from './beep';
import { useCovering } from '../ui/useCovering';
import { useQuantities } from '../sensors/useQuantities';

/** What a run that is armed waits for, over the traces. */
export function WaitingView() {
  const status = useDocuments(({ recorder }) => recorder);
  if (status.phase === 'countdown') return <Countdown key={status.number} status={status} />;
  if (status.phase === 'waiting') return <Waiting status={status} />;
  return null;
}

type Status<P> = Extract<RecorderStatus, { phase: P }>;

/** The seconds that are left, large enough for the back of the room, and heard. */
function Countdown({ status }: { status: Status<'countdown'> }) {
  const session = useInvestigation();
  const view = useRef<HTMLElement>(null);
  useCovering(view);
  const [until] = useState(() => performance.now() + status.secondsLeft * 1000);
  const [left, setLeft] = useState(Math.ceil(status.secondsLeft));
  useEffect(() => {
    const timer = setInterval(() => setLeft(Math.max(Math.ceil((until - performance.now()) / 1000), 0)), 50);
    return () => clearInterval(timer);
  }, [until]);
  useEffect(() => beep(left === 0 ? 'go' : 'tick'), [left]);
  return (
    <section ref={view} className="over-traces waiting-view" aria-label="Countdown">
      <div className="count" role="timer">
        {left}
      </div>
      <Row number={status.number} times={status.times} />
      <div className="row-buttons">
        <Button variant="act" onClick={() => session.beginNow()}>
          Begin now
        </Button>
        <Button variant="plain" onClick={() => void session.toggleRecording()}>
          Cancel
        </Button>
      </div>
    </section>
  );
}

function Waiting({ status }: { status: Status<'waiting'> }) {
  const view = useRef<HTMLElement>(null);
  useCovering(view);
  const session = useInvestigation();
  const begin = useDocuments(({ plan }) => plan.begin);
  const quantities = useQuantities();
  const wanted = status.for;
  const key = wanted.kind === 'level' ? wanted.level.quantity : wanted.quantity;
  const quantity = quantities.find((candidate) => candidate.key === key);
  const words =
    wanted.kind === 'level'
      ? levelWords(wanted.level, quantities)
      : `${quantity?.channel.symbol ?? key} switches ${wanted.to}`;
  // Of a quantity whose runs begin at zero, the reading where it rests now is what will be zero.
  const rest = wanted.kind === 'level' ? (wanted.rest ?? 0) : 0;
  /** A level that was dragged is that of the plan, and what waits is armed anew with it. */
  const move = async (value: number) => {
    if (wanted.kind !== 'level' || begin.kind !== 'level') return;
    await session.toggleRecording();
    await session.plan.change({ begin: { ...begin, level: { ...begin.level, value } } });
    await session.toggleRecording();
  };
  return (
    <section ref={view} className="over-traces waiting-view" aria-label="Waiting for the beginning">
      <h2 role="status">Waiting until {words}</h2>
      <Row number={status.number} times={status.times} />
      {wanted.kind === 'level' && wanted.device === '' && (
        <p className="hint">
          The sensors of this run reconnected with different settings. Cancel it and record again.
        </p>
      )}
      {quantity !== undefined && wanted.kind === 'level' && (
        <>
          <LiveReading
            handle={quantity.stream.handle}
            index={quantity.index}
            channel={quantity.channel}
            rate={quantity.stream.liveRate}
            from={rest}
            named
          />
          {wanted.level.of === 'reading' && (
            <LevelTrace
              quantity={quantity}
              levels={[
                { word: '', value: wanted.threshold + rest, onMove: (value) => void move(value - rest) },
              ]}
              height={240}
            />
          )}
        </>
      )}
      <div className="row-buttons">
        <Button variant="act" onClick={() => session.beginNow()}>
          Begin now
        </Button>
        <Button variant="plain" onClick={() => void session.toggleRecording()}>
          Cancel
        </Button>
      </div>
    </section>
  );
}

function Row({ number, times }: { number: number; times: number | null }) {
  if (times === 1) return null;
  return (
    <p className="quiet">
      Run {number} {times === null ? 'of as many as come' : `of ${times}`}
    </p>
  );
}
