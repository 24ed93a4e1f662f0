import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { NavLink, useParams } from 'react-router';
import { useStore } from 'zustand';
import { ApiError, sentenceOf } from '../api/client';
import { live } from '../api/live';
import { BenchSession } from '../session/benchSession';
import { SessionProvider, useDocuments, useSession } from '../session/context';
import { Head } from '../ui/Head';
import { Message } from '../ui/Message';
import { NameField } from '../ui/NameField';
import { RunPool } from '../workers/pool';
import { AwayPanel } from './away/AwayPanel';
import { LargeDigits } from './digits/LargeDigits';
import { CursorBar } from './CursorBar';
import { GatePanel } from './gate/GatePanel';
import { ImportDialog } from './ImportDialog';
import { MovedRuns } from './MovedRuns';
import { PageTabs } from './PageTabs';
import { PacePanel } from './pace/PacePanel';
import { giveKeysBack, isTyping, takesKeys } from './keyTakers';
import { bringInText, holdsColumns } from './pasting';
import { CopyEntry } from './CopyEntry';
import { KeepTemplate } from './TemplateMenu';
import { TemplateQuestion } from './TemplateQuestion';
import { JointFitDialog } from './JointFit';
import { KnownConstants } from './KnownConstants';
import { RelationChooser } from './relations/RelationChooser';
import { PictureDialog } from './picture/PictureDialog';
import { RecorderBar } from './RecorderBar';
import { RunShelf } from './RunShelf';
import { SavingBar } from './SavingBar';
import { SetUp } from './SetUp';
import { SensorColumn } from './SensorColumn';
import { SideColumn, useSides } from './SideColumn';
import { SpotTable } from './spots/SpotTable';
import { TablePanel } from './TablePanel';
import { TraceStack } from './TraceStack';
import { WaitingView } from './WaitingView';
import { WorkingsColumn } from './WorkingsColumn';

// While the investigation is fetched, the workers read their program.
RunPool.prepare();

type Opening = { session: BenchSession } | { fault: string; isMissing: boolean } | null;

export default function BenchPage() {
  const { id = '' } = useParams();
  const [opening, setOpening] = useState<Opening>(null);
  useEffect(() => {
    let session: BenchSession | null = null;
    let left = false;
    setOpening(null);
    BenchSession.open(id).then(
      (opened) => {
        if (left) {
          opened.dispose();
          return;
        }
        session = opened;
        setOpening({ session: opened });
      },
      (error: unknown) => {
        if (!left)
          setOpening({
            fault: sentenceOf(error),
            isMissing: error instanceof ApiError && error.code === 'not-found',
          });
      },
    );
    return () => {
      left = true;
      session?.dispose();
      live.watch({ investigation: null });
    };
  }, [id]);
  if (opening === null) return <Message title="One moment …" text="" />;
  if ('fault' in opening)
    return (
      <Message
        title={opening.isMissing ? 'There is no such investigation' : 'This investigation cannot be opened'}
        text={opening.fault}
      />
    );
  return (
    <SessionProvider session={opening.session}>
      <Bench />
    </SessionProvider>
  );
}

function Bench() {
  const session = useSession();
  const name = useDocuments((documents) => documents.name);
  const sides = useSides();
  const isSpot = useDocuments(({ plan }) => plan.way === 'spot');
  const hasTable = useStore(session.table.state, ({ isOpen }) => isOpen);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.code !== 'Space' || takesKeys(event.target)) return;
      // Held down it counts once, and the page must not scroll.
      event.preventDefault();
      event.stopPropagation();
      if (event.type === 'keydown' && !event.repeat) void session.toggleRecording();
    };
    window.addEventListener('keydown', onKey, true);
    window.addEventListener('keyup', onKey, true);
    window.addEventListener('click', giveKeysBack);
    return () => {
      window.removeEventListener('click', giveKeysBack);
      window.removeEventListener('keydown', onKey, true);
      window.removeEventListener('keyup', onKey, true);
    };
  }, [session]);
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData('text') ?? '';
      // What is pasted into a field, or into the table of spot readings, is theirs.
      if (event.defaultPrevented || isTyping(event.target) || !holdsColumns(text)) return;
      event.preventDefault();
      bringInText(text);
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, []);
  useHotkeys('mod+z', () => session.history.undo(), { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', () => session.history.redo(), { preventDefault: true });
  useHotkeys('f', () => session.frameAll());
  useHotkeys('b', () => session.looking.back());
  useHotkeys('d', () => session.view.setState(({ digits }) => ({ digits: digits === null ? [] : null })));
  useHotkeys('t', () => session.table.toggle());
  useHotkeys('r', () => session.regions.lookAt());
  useHotkeys('escape', () => {
    if (session.view.getState().digits !== null) session.view.setState({ digits: null });
    else if (session.view.getState().isLassoing) session.view.setState({ isLassoing: false });
    else if (session.view.getState().isShifting) session.view.setState({ isShifting: false });
    else if (session.view.getState().selectedRegion !== null) session.view.setState({ selectedRegion: null });
    else session.cursor.lift();
  });
  return (
    <div className="page">
      <Head nav={<NavLink to={`/investigations/${session.id}`}>Bench</NavLink>}>
        <NameField
          label="Name of the investigation"
          className="title-input"
          value={name}
          onCommit={(newName) => void session.plan.rename(newName)}
        />
      </Head>
      <SavingBar />
      <div className={`bench ${sides.left ? '' : 'left-folded'} ${sides.right ? '' : 'right-folded'}`}>
        <SideColumn side="left" title="Sensors">
          <SensorColumn />
        </SideColumn>
        <main className="middle">
          <RecorderBar />
          <GatePanel />
          <PacePanel />
          <AwayPanel />
          <PageTabs />
          <MovedRuns />
          <div className={`stage-of-traces ${isSpot || hasTable ? 'with-table' : ''}`}>
            <TraceStack />
            <TablePanel />
            {isSpot && <SpotTable />}
            <SetUp />
            <WaitingView />
          </div>
          <CursorBar />
          <RunShelf />
        </main>
        <SideColumn side="right" title="Workings">
          <WorkingsColumn />
        </SideColumn>
      </div>
      <ImportDialog />
      <PictureDialog />
      <RelationChooser />
      <KnownConstants />
      <KeepTemplate />
      <TemplateQuestion />
      <JointFitDialog />
      <CopyEntry />
      <LargeDigits />
    </div>
  );
}
