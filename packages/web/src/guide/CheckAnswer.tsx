import { type GuideAnswer, type GuideItem } from '@heuristor/contracts';
import isEqual from 'fast-deep-equal';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Check2, X } from 'react-bootstrap-icons';
import { sentenceOf } from '../api/client';
import { useGuide, useGuideState } from './context';

/** How a result read when it was chosen is no part of what was checked. */
const asked = (answer: GuideAnswer) => (answer.kind === 'result' ? { ...answer, then: '' } : answer);

/** The press that has an answer checked, what was found, and how often one may still ask. */
export function CheckAnswer({
  item,
  answer,
}: {
  item: Extract<GuideItem, { tries: number }>;
  answer: GuideAnswer | null;
}) {
  const guide = useGuide();
  const isReleased = useGuideState((state) => state.guide.isReleased);
  const found = useGuideState((state) => state.checked.get(item.id));
  const [isAsking, setIsAsking] = useState(false);
  const [fault, setFault] = useState<{ of: GuideAnswer; says: string } | null>(null);
  const isFree = isReleased || guide.mayWrite;
  if (answer === null || (!isFree && item.tries === 0)) return null;
  if (item.right === null && (isReleased || guide.mayWrite)) return null;
  const isFound = found !== undefined && isEqual(asked(found.answer), asked(answer));
  const left = isFree ? null : (found?.left ?? item.tries);
  const check = async () => {
    setIsAsking(true);
    setFault(null);
    try {
      await guide.check(item.id, answer);
    } catch (error) {
      setFault({ of: answer, says: sentenceOf(error) });
    }
    setIsAsking(false);
  };
  return (
    <div className="check-answer" aria-live="polite">
      {isFound ? (
        <span className={found.isRight ? 'is-right' : 'is-not'}>
          {found.isRight ? <Check2 aria-hidden /> : <X aria-hidden />} {found.isRight ? 'Right.' : 'Not yet.'}{' '}
          {found.says}
        </span>
      ) : (
        <Button variant="plain" disabled={isAsking || left === 0} onClick={() => void check()}>
          {isAsking ? 'Checking …' : 'Check'}
        </Button>
      )}
      {left !== null && (!isFound || !found.isRight) && (
        <span className="quiet small">
          {left === 0 ? 'No checks left.' : left === 1 ? 'One check left.' : `${left} checks left.`}
        </span>
      )}
      {fault !== null && isEqual(fault.of, answer) && <p className="fault">{fault.says}</p>}
    </div>
  );
}
