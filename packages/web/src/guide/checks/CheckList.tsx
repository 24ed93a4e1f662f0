import { type GuideCheck } from '@heuristor/contracts';
import { useEffect } from 'react';
import { CheckCircleFill, Circle } from 'react-bootstrap-icons';
import { useTicks } from './useTicks';
import { amountOf } from './amount';
import { useBench } from './useBench';
import { checkKindsHere } from '.';

/** What readings and settings tick by themselves. */
export function CheckList({ checks }: { checks: readonly GuideCheck[] }) {
  if (checks.length === 0) return null;
  return <Looked checks={checks} />;
}

function Looked({ checks }: { checks: readonly GuideCheck[] }) {
  const { ticked, tick } = useTicks();
  const bench = useBench(checks.some(({ id, kind }) => checkKindsHere[kind].isOnce && !ticked.has(id)));
  const seen = checks.map((check) => {
    const kind = checkKindsHere[check.kind];
    const isKept = kind.isOnce && ticked.has(check.id);
    return { check, kind, ...(isKept ? { isMet: true, says: '' } : kind.stateOf(check, bench)) };
  });
  const fresh = seen
    .filter(({ check, kind, isMet }) => isMet && kind.isOnce && !ticked.has(check.id))
    .map(({ check }) => check.id)
    .join();
  useEffect(() => {
    for (const id of fresh.split(',')) if (id !== '') tick(id);
  }, [fresh, tick]);
  return (
    <ul className="guide-checks">
      {seen.map(({ check, kind, isMet, says }) => (
        <li key={check.id} className={isMet ? 'met' : ''}>
          {isMet ? (
            <CheckCircleFill role="img" aria-label="Met" />
          ) : (
            <Circle role="img" aria-label="Not met" />
          )}
          <span>
            {kind.sentence(check.channel, amountOf(check))}.
            {says !== '' && <span className="says"> {says}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
