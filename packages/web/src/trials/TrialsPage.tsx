import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useHotkeys } from 'react-hotkeys-hook';
import { sentenceOf } from '../api/client';
import { PictureDialog } from '../files/picture/PictureDialog';
import { holdsColumns } from '../files/pasting';
import { Head } from '../header/Head';
import { SavingBar } from '../investigation/SavingBar';
import { SideColumn } from '../investigation/SideColumn';
import { useDocuments, useInvestigation } from '../investigation/context';
import { useSides } from '../investigation/sides';
import { RunChips } from '../runs/RunChips';
import { FaultBoundary } from '../ui/FaultBoundary';
import { Message } from '../ui/Message';
import { NameField } from '../ui/NameField';
import { KnownConstants } from '../workings/constants/KnownConstants';
import { CopyEntry } from '../workings/entries/CopyEntry';
import { RelationChooser } from '../workings/relations/RelationChooser';
import { Conclusions } from './Conclusions';
import { FirstTables } from './FirstTables';
import { PlotArea } from './PlotArea';
import { TablePane } from './TablePane';
import { TrialsProvider, useTrials, useTrialsState } from './context';
import { type TrialsSession } from './trialsSession';

/** Where many runs become one conclusion: a table over runs, its plots, and what is worked out from it. */
export default function TrialsPage() {
  const session = useInvestigation();
  const name = useDocuments((documents) => documents.name);
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
  return (
    <div className="page">
      <Head>
        <NameField
          label="Name of the investigation"
          className="title-input"
          value={name}
          onCommit={(newName) => void session.plan.rename(newName)}
        />
      </Head>
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
      <RunChips />
    </div>
  );
}

function OpenTrials() {
  const trials = useTrials();
  const hasTables = useTrialsState((state) => state.trials.tables.length > 0);
  const table = useTrialsState(({ trials: { tables }, open }) => tables.find(({ id }) => id === open));
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
      // What is pasted into a field is its own, but for whole rows, which no field takes.
      if (event.defaultPrevented || !holdsColumns(text)) return;
      event.preventDefault();
      trials.paste(text);
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, [trials]);
  useHotkeys('mod+z', () => trials.history.undo(), { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', () => trials.history.redo(), { preventDefault: true });
  useHotkeys('f', () => trials.frameAll());
  useHotkeys('b', () => trials.looking.back());
  useHotkeys('escape', () => {
    if (!trials.viewing.putAway()) trials.cursor.lift();
  });
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
      <RelationChooser />
      <KnownConstants />
      <CopyEntry />
    </>
  );
}
