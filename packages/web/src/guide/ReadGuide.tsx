import { Button } from 'react-bootstrap';
import { AskedItem } from './AskedItem';
import { useGuide, useGuideState } from './context';

/** The guide for whoever follows it: steps to be done, questions to be answered in place. */
export function ReadGuide() {
  const guide = useGuide();
  const items = useGuideState((state) => state.guide.items);
  if (items.length === 0)
    return (
      <div className="no-guide">
        <p className="quiet">
          {guide.mayWrite
            ? 'A guide leads a class through this investigation: steps that set the bench up, questions that are answered beside the notebook.'
            : 'Your teacher has written no guide for this investigation.'}
        </p>
        {guide.mayWrite && (
          <Button variant="act" onClick={() => guide.write(true)}>
            Write a guide
          </Button>
        )}
      </div>
    );
  return (
    <div className="guide-items">
      {items.map((item, i) => (
        <AskedItem key={item.id} item={item} number={i + 1} />
      ))}
    </div>
  );
}
