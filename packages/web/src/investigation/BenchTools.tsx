import { Button } from 'react-bootstrap';
import { ArrowsAngleExpand, SkipBackward } from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { useQuantities } from '../sensors/useQuantities';
import { useOwnScenes } from '../stage/StageStrip';
import { toggleStrip, useStrip } from '../stage/stripState';
import { TraceMenu } from '../traces/TraceMenu';
import { PageTabs } from '../traces/pages/PageTabs';
import { SavedWord, StepButtons } from './StepButtons';
import { presentRuns } from '../runs/runs';
import { useDocuments, useInvestigation, useView } from './context';
import { FoldButton } from './FoldButton';
import { useSides } from './sides';

/** The pages of traces, and what is done with what they show. */
export function BenchTools() {
  return (
    <div className="bench-tools">
      <PageTabs />
      <Tools />
    </div>
  );
}

function Tools() {
  const session = useInvestigation();
  const isFramed = useView(({ sight, scales }) => sight === null && Object.keys(scales).length === 0);
  const canGoBack = useStore(session.looking.state, (state) => state.canGoBack);
  const hasTable = useStore(session.table.state, ({ isOpen }) => isOpen);
  const isLive = useView((view) => view.isLive);
  const canLive = useQuantities().length > 0;
  const hasRuns = useDocuments(({ runs }) => presentRuns(runs).length > 0);
  const hasStrip = useStrip(({ isOpen }) => isOpen);
  const scenes = useOwnScenes(session.id);
  const { left, right } = useSides(useShallow((state) => ({ left: state.left, right: state.right })));
  return (
    <div className="tools">
      <Button
        variant="plain"
        disabled={isFramed}
        onClick={() => session.frameAll()}
        aria-label="Frame data"
        title="Show all data (F)"
      >
        <ArrowsAngleExpand aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Previous view"
        title="Previous view (B)"
        disabled={!canGoBack}
        onClick={() => session.looking.back()}
      >
        <SkipBackward aria-hidden />
      </Button>
      <TraceMenu />
      <Button
        variant="plain"
        title="What the sensors read (L)"
        aria-pressed={isLive || (canLive && !hasRuns)}
        disabled={!canLive || !hasRuns}
        onClick={() => session.viewing.showLive(!isLive)}
      >
        Live
      </Button>
      <Button
        variant="plain"
        aria-label="Table of numbers"
        title="Table of numbers (T)"
        aria-pressed={hasTable}
        onClick={() => session.table.toggle()}
      >
        Table
      </Button>
      <Button
        variant="plain"
        aria-label="Large digits"
        title="Large digits (D)"
        onClick={() => session.viewing.showDigits(true)}
      >
        Digits
      </Button>
      {scenes.length > 0 && (
        <Button variant="plain" title="The apparatus (A)" aria-pressed={hasStrip} onClick={toggleStrip}>
          Stage
        </Button>
      )}
      <StepButtons />
      <FoldButton side="left" title="Sensors and plan" stands={left} />
      <FoldButton side="right" title="Workings" stands={right} />
      <SavedWord saver={session.saver} />
    </div>
  );
}
