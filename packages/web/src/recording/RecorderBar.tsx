import { SavedWord, StepButtons } from '../investigation/StepButtons';
import { Button } from 'react-bootstrap';
import {
  ArrowsAngleExpand,
  Icon123 as DigitsIcon,
  LayoutSidebar,
  LayoutSidebarReverse,
  SkipBackward,
  Table as TableIcon,
} from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useInvestigation, useView } from '../investigation/context';
import { recordingRun } from '../runs/runs';
import { toggleSide, useSides } from '../investigation/sides';
import { TraceMenu } from '../traces/TraceMenu';
import { WayMenu } from './WayMenu';
import { wayParts } from './wayParts';

/** What begins and ends a run in the way that was chosen, the tools beside it, and the plan. */
export function RecorderBar() {
  const isRecording = useDocuments(({ runs }) => recordingRun(runs) !== undefined);
  const isArmed = useDocuments(({ recorder }) => recorder.phase !== 'idle');
  const isReading = useDocuments(({ spots }) => spots.phase !== 'idle');
  const way = useDocuments(({ plan }) => plan.way);
  const isBusy = isRecording || isArmed;
  const { Bar, Line } = isBusy && !wayParts[way].stay ? wayParts.time : wayParts[way];
  const locked = isBusy || isReading;
  return (
    <>
      <div className="recorder">
        <Bar />
        <Tools />
      </div>
      <Line locked={locked} menu={<WayMenu disabled={locked} />} />
    </>
  );
}

function Tools() {
  const session = useInvestigation();
  const isFramed = useView(({ sight, scales }) => sight === null && Object.keys(scales).length === 0);
  const canGoBack = useStore(session.looking.state, (state) => state.canGoBack);
  const hasTable = useStore(session.table.state, ({ isOpen }) => isOpen);
  const { left, right } = useSides(useShallow((state) => ({ left: state.left, right: state.right })));
  return (
    <div className="tools">
      <Button
        variant="plain"
        disabled={isFramed}
        onClick={() => session.frameAll()}
        title="Show all data (F)"
      >
        <ArrowsAngleExpand aria-hidden /> <span className="wide-word">Frame data</span>
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
        aria-label="Table of numbers"
        title="Table of numbers (T)"
        aria-pressed={hasTable}
        onClick={() => session.table.toggle()}
      >
        <TableIcon aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Large digits"
        title="Large digits (D)"
        onClick={() => session.viewing.showDigits([])}
      >
        <DigitsIcon aria-hidden />
      </Button>
      <StepButtons />
      <Button
        variant="plain"
        aria-label="Sensors and plan: show or fold away"
        title="Sensors and plan"
        aria-pressed={left}
        onClick={() => toggleSide('left')}
      >
        <LayoutSidebar aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Workings: show or fold away"
        title="Workings"
        aria-pressed={right}
        onClick={() => toggleSide('right')}
      >
        <LayoutSidebarReverse aria-hidden />
      </Button>
      <SavedWord saver={session.saver} />
    </div>
  );
}
