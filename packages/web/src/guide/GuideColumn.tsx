import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { sentenceOf } from '../api/client';
import { useInvestigation } from '../investigation/context';
import { SavingBar } from '../investigation/SavingBar';
import { NotebookProvider } from '../notebook/context';
import { type NotebookSession } from '../notebook/notebookSession';
import { FaultBoundary } from '../ui/FaultBoundary';
import { useAnsweredCount } from './answers';
import { ReadGuide } from './ReadGuide';
import { GuideProvider, useGuide, useGuideState } from './context';
import './guide.css';
import { type GuideSession } from './guideSession';
import { WriteGuide } from './writing/WriteGuide';

/** What stands in the column of the guide. */
export default function GuideColumn() {
  const opened = useOpened();
  if (!('guide' in opened)) return <p className="quiet">{opened.says}</p>;
  return (
    <GuideProvider value={opened.guide}>
      <NotebookProvider value={opened.notebook}>
        <Opened />
      </NotebookProvider>
    </GuideProvider>
  );
}

/** The guide, and the notebook in which it is answered; or what is to be said as long as they are not there. */
function useOpened(): { guide: GuideSession; notebook: NotebookSession } | { says: string } {
  const session = useInvestigation();
  const [opened, setOpened] = useState<ReturnType<typeof useOpened>>({ says: 'Loading …' });
  useEffect(() => {
    let isWanted = true;
    Promise.all([session.guide(), session.notebook()]).then(
      ([guide, notebook]) => isWanted && setOpened({ guide, notebook }),
      (error: unknown) => isWanted && setOpened({ says: sentenceOf(error) }),
    );
    return () => {
      isWanted = false;
    };
  }, [session]);
  return opened;
}

function Opened() {
  const guide = useGuide();
  const isWriting = useGuideState((state) => state.isWriting) && guide.mayWrite;
  const hasItems = useGuideState((state) => state.guide.items.length > 0);
  return (
    <>
      {(hasItems || isWriting) && (
        <div className="guide-tools">
          <Progress />
          {guide.mayWrite && (
            <Button variant="plain" onClick={() => guide.write(!isWriting)}>
              {isWriting ? 'Done' : 'Change'}
            </Button>
          )}
        </div>
      )}
      <SavingBar saver={guide.saver} what="guide" />
      <FaultBoundary what="The guide" className="guide-items" resetKeys={[isWriting]}>
        {isWriting ? <WriteGuide /> : <ReadGuide />}
      </FaultBoundary>
    </>
  );
}

/** How many questions are answered. */
function Progress() {
  const items = useGuideState((state) => state.guide.items);
  const count = useAnsweredCount(items);
  const asked = items.filter(({ kind }) => kind !== 'step').length;
  if (asked === 0) return null;
  return (
    <span className="quiet small">
      {count} of {asked} questions answered
    </span>
  );
}
