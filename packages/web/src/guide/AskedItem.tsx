import { type GuideItem } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { useId } from 'react';
import { shortText } from '../ui/numberText';
import { GuideText } from './GuideText';
import { useGuide, useGuideState } from './context';
import { kindOfItem } from './kinds';

/** A step or a question, for whoever follows the guide. @param number its place among all */
export function AskedItem({ item, number }: { item: GuideItem; number: number }) {
  const { Answer } = kindOfItem(item.kind);
  const id = useId();
  return (
    <section className={`guide-item of-${item.kind}`} aria-labelledby={id}>
      {item.kind !== 'step' && item.isBefore && <p className="before">Before you record</p>}
      <h3 id={id}>
        <span className="guide-number">{number}.</span> {item.title}
      </h3>
      <GuideText text={item.text} />
      <Answer item={item} />
      <Right item={item} />
    </section>
  );
}

/** What is right, once it is released. */
function Right({ item }: { item: GuideItem }) {
  const isReleased = useGuideState((state) => state.guide.isReleased);
  const { mayWrite } = useGuide();
  if (!isReleased || !('right' in item) || item.right === null) return null;
  return (
    <div className="guide-right">
      <span className="small">Answer:</span> <RightWords item={item} />
      {mayWrite && <span className="quiet small"> (released)</span>}
    </div>
  );
}

function RightWords({ item }: { item: GuideItem }) {
  switch (item.kind) {
    case 'words':
      return <GuideText text={item.right ?? ''} />;
    case 'choice':
      return (
        <>
          {item.options
            .filter(({ key }) => item.right?.includes(key))
            .map(({ text }) => text)
            .join('; ')}
        </>
      );
    case 'number':
    case 'result': {
      if (item.right === null) return null;
      const unit = printedUnit(parseUnit(item.unit));
      const { value, tolerance } = item.right;
      const number = `${shortText(value, 6)} ± ${shortText(tolerance, 3)}`;
      return <span className="number">{unit === '' ? number : `(${number}) ${unit}`}</span>;
    }
    case 'step':
    case 'sketch':
      return null;
  }
}
