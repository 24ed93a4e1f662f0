import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { ExclamationTriangle } from 'react-bootstrap-icons';
import { type InvestigationSession } from '../../investigation/investigationSession';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { type Hint, type Mend, hintsOf } from './hints';
import { threadOf } from '../../sensors/devices';
import { useQuantities } from '../../sensors/useQuantities';

const lookEveryMilliseconds = 1500;
const mostShown = 2;

/** What about the next run looks wrong, with its mend on one click. */
export function PlanHints() {
  const session = useInvestigation();
  const plan = useDocuments((documents) => documents.plan);
  const quantities = useQuantities();
  const runs = useDocuments((documents) => documents.runs);
  const [hints, setHints] = useState<Hint[]>([]);
  const [allShown, setAllShown] = useState(false);
  useEffect(() => {
    let isGone = false;
    const look = async () => {
      await session.seen.look(runs);
      if (isGone) return;
      const fresh = hintsOf(
        plan,
        quantities,
        {
          recent: ({ stream, index }) => threadOf(stream.handle, index).values,
          inRuns: session.seen.in(runs),
        },
        Date.now(),
      );
      setHints((before) => (saysTheSame(before, fresh) ? before : fresh));
    };
    void look();
    const timer = setInterval(() => void look(), lookEveryMilliseconds);
    return () => {
      isGone = true;
      clearInterval(timer);
    };
  }, [session, plan, quantities, runs]);
  if (hints.length === 0) return null;
  return (
    <ul className="plan-hints">
      {(allShown ? hints : hints.slice(0, mostShown)).map(({ text, mend }) => (
        <li key={text}>
          <ExclamationTriangle aria-hidden /> <span>{text}</span>
          {mend !== null && (
            <Button variant="plain" size="sm" onClick={() => void carryOut(session, mend.does)}>
              {mend.label}
            </Button>
          )}
        </li>
      ))}
      {hints.length > mostShown && (
        <li>
          <Button variant="plain" size="sm" onClick={() => setAllShown(!allShown)}>
            {allShown ? 'Fewer' : `${hints.length - mostShown} more`}
          </Button>
        </li>
      )}
    </ul>
  );
}

/** Mends carry live objects; what is said is what counts. */
const saysTheSame = (before: readonly Hint[], now: readonly Hint[]) =>
  before.length === now.length && before.every(({ text }, i) => text === now[i].text);

async function carryOut(session: InvestigationSession, mend: Mend): Promise<void> {
  switch (mend.kind) {
    case 'zero':
      return session.sensors.zero(mend.device, mend.channels);
    case 'plan':
      return session.plan.change(mend.patch);
    case 'flash':
      return session.sensors.flash(mend.device.code);
    case 'rate': {
      const { device, stream } = mend.quantity;
      return session.sensors.setUp(
        device.code,
        { rates: { [stream.key]: mend.rate } },
        { rates: { [stream.key]: stream.rate } },
      );
    }
    case 'range': {
      const { device, channel } = mend.quantity;
      return session.sensors.setUp(
        device.code,
        { channels: { [channel.key]: { range: mend.range } } },
        { channels: { [channel.key]: { range: channel.range } } },
      );
    }
  }
}
