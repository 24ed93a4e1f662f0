import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useStore } from 'zustand';
import { sentenceOf } from '../api/client';
import { ImportDialog } from '../files/ImportDialog';
import { PictureDialog } from '../files/picture/PictureDialog';
import { holdsColumns } from '../files/pasting';
import { InvestigationHead } from '../investigation/InvestigationHead';
import { SavingBar } from '../investigation/SavingBar';
import { SideColumn } from '../investigation/SideColumn';
import { useInvestigation } from '../investigation/context';
import { useSheetKeys } from '../investigation/useSheetKeys';
import { useSides } from '../investigation/sides';
import { RunChips } from '../runs/RunChips';
import { FaultBoundary } from '../ui/FaultBoundary';
import { isTyping } from '../ui/keyTakers';
import { Message } from '../ui/Message';
import { KnownConstants } from '../workings/constants/KnownConstants';
import { CopyEntry } from '../workings/entries/CopyEntry';
import { RelationChooser } from '../workings/relations/RelationChooser';
import { WorkOut } from '../workings/workOut/WorkOut';
import { Conclusions } from './Conclusions';
import { FirstTables } from './FirstTables';
import { PlotArea } from './PlotArea';
import { TablePane } from './TablePane';
import { TrialsProvider, useShownTable, useTrials, useTrialsState } from './context';
import { tableIn } from './trialsDocument';
import { type TrialsSession } from './trialsSession';

/** Where many runs become one conclusion: a table over runs, its plots, and what is worked out from it. */
export default function TrialsPage() {
  const session = useInvestigation();
  const [opened, setOpened] = useState<TrialsSession | { fault: string } | null>(null);
  useEffect(() => {
    let isWanted = true;
    session.trials().then(
      (trials) => isWanted && setOpened(trials),
      (error: unknown) => isWanted && setOpened({ fault: sentenceOf(error) }),
    );
    return () => {
      isWanted = false;
    };
  }, [session]);
  // A question belongs to the page on which it was asked.
  useEffect(() => session.dialogs.close, [session]);
  return (
    <div className="page">
      <InvestigationHead page="Trials" />
      <SavingBar saver={session.saver} what="workings" />
      {opened === null ? (
        <Message title="Loading …" text="" />
      ) : 'fault' in opened ? (
        <Message title="The trials cannot be opened" text={opened.fault} />
      ) : (
        <TrialsProvider trials={opened}>
          <OpenTrials />
        </TrialsProvider>
      )}
      {opened === null || 'fault' in opened ? <RunChips pictured={null} /> : <Shelf trials={opened} />}
      <ImportDialog />
    </div>
  );
}

/** The shelf of runs, under a plot of which a picture can be made where it has points. */
function Shelf({ trials }: { trials: TrialsSession }) {
  const hasPoints = useStore(
    trials.state,
    ({ trials: all, open }) => tableIn(all, open)?.plot.kind === 'points',
  );
  return <RunChips pictured={hasPoints ? trials : null} />;
}

function OpenTrials() {
  const trials = useTrials();
  const hasTables = useTrialsState((state) => state.trials.tables.length > 0);
  const table = useShownTable();
  const fills = useTrialsState(({ fills: part }) => part);
  const stands = useSides(({ right }) => right);
  useEffect(() => {
    trials.enter();
    return () => trials.leave();
  }, [trials]);
  useEffect(() => trials.dialogs.close, [trials]);
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData('text') ?? '';
      // Whole rows are no text of a cell; any other field takes them.
      const isOfCell = event.target instanceof Element && event.target.closest('.trial-grid') !== null;
      const isTaken = event.defaultPrevented || (isTyping(event.target) && !isOfCell);
      if (isTaken || !holdsColumns(text)) return;
      event.preventDefault();
      trials.paste(text);
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, [trials]);
  useSheetKeys(trials);
  return (
    <>
      <SavingBar saver={trials.saver} what="trials" />
      {hasTables ? (
        <div className={`trials ${stands ? '' : 'right-folded'} ${fills === null ? '' : `fills-${fills}`}`}>
          {fills !== 'plot' && (
            <FaultBoundary what="This table" className="trials-pane" resetKeys={[table]}>
              <TablePane />
            </FaultBoundary>
          )}
          {fills !== 'table' && (
            <FaultBoundary what="This plot" className="trials-plot" resetKeys={[table]}>
              <PlotArea />
            </FaultBoundary>
          )}
          <SideColumn side="right" title="Conclusions">
            <Conclusions />
          </SideColumn>
        </div>
      ) : (
        <div className="trials-empty">
          <FirstTables />
          <Button variant="plain" onClick={() => trials.addTable({})}>
            Empty table
          </Button>
        </div>
      )}
      <PictureDialog />
      <WorkOut ofRuns={false} />
      <RelationChooser />
      <KnownConstants />
      <CopyEntry />
    </>
  );
}
