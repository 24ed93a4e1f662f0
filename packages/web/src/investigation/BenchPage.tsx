import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useStore } from 'zustand';
import { useDocuments, useInvestigation, useView } from './context';
import { presentRuns, recordingRun } from '../runs/runs';
import { BesideTiles } from '../digits/BesideTiles';
import { LargeDigits } from '../digits/LargeDigits';
import { tileChoiceOf } from '../digits/tileChoice';
import { CursorBar } from '../traces/cursor/CursorBar';
import { GatePanel } from '../recording/gate/GatePanel';
import { BesideButton } from '../guide/BesideButton';
import { GuideSide } from '../guide/GuideSide';
import { useBesideTraces } from '../guide/besideTraces';
import { ImportDialog } from '../files/ImportDialog';
import { MovedRuns } from '../runs/MovedRuns';
import { BenchTools } from './BenchTools';
import { FirstRunBar } from '../recording/rehearsal/FirstRunBar';
import { LiveOrSteps } from '../recording/rehearsal/LiveOrSteps';
import { LiveView } from '../recording/rehearsal/LiveView';
import { StageStrip } from '../stage/StageStrip';
import { toggleStrip, useStrip } from '../stage/stripState';
import { giveKeysBack, isTyping, takesKeys } from '../ui/keyTakers';
import { bringInText, holdsColumns } from '../files/pasting';
import { CopyEntry } from '../workings/entries/CopyEntry';
import { BeginTemplate } from '../workings/templates/BeginTemplate';
import { KeepTemplate } from '../workings/templates/TemplateMenu';
import { TemplateQuestion } from '../workings/templates/TemplateQuestion';
import { JointFitDialog } from '../workings/results/JointFit';
import { KnownConstants } from '../workings/constants/KnownConstants';
import { RelationChooser } from '../workings/relations/RelationChooser';
import { WorkOut } from '../workings/workOut/WorkOut';
import { PictureDialog } from '../files/picture/PictureDialog';
import { RecorderBar } from '../recording/RecorderBar';
import { RunChips } from '../runs/RunChips';
import { InvestigationHead } from './InvestigationHead';
import { KeysDialog } from './KeysDialog';
import { SavingBar } from './SavingBar';
import { SetUp } from '../sensors/SetUp';
import { Connect } from '../sensors/Connect';
import { SensorColumn } from '../sensors/SensorColumn';
import { BesideTraces } from './BesideTraces';
import { SideColumn } from './SideColumn';
import { useSheetKeys } from './useSheetKeys';
import { useSides } from './sides';
import { TablePanel } from '../table/TablePanel';
import { TraceStack } from '../traces/TraceStack';
import { WaitingView } from '../recording/WaitingView';
import { wayParts } from '../recording/wayParts';
import { OffersBar, useIsOffering } from '../workings/offers/OffersBar';
import { WorkingsColumn } from '../workings/WorkingsColumn';

/** What ways of recording say between the plan and the traces. */
const panels = Object.values(wayParts).flatMap(({ Panel }) => (Panel === null ? [] : [Panel]));

/** Where runs are recorded, looked at and worked out. */
export default function BenchPage() {
  const session = useInvestigation();
  const hasLeft = useSides(({ left }) => left);
  const way = useDocuments(({ plan }) => plan.way);
  const { Beside } = wayParts[way];
  const isRecording = useDocuments(({ runs }) => recordingRun(runs) !== undefined);
  const hasRuns = useDocuments(({ runs }) => presentRuns(runs).length > 0);
  // Before there is a run, it stands in the middle anyway.
  const isLive = useView((view) => view.isLive) && hasRuns && !isRecording;
  const { isOpen: hasStrip, place: stripPlace } = useStrip();
  const isOffering = useIsOffering();
  const isGuided = useBesideTraces(session.id) === 'guide';
  const hasTable = useStore(session.table.state, ({ isOpen }) => isOpen);
  const hasTiles = useStore(tileChoiceOf(session.id), ({ beside }) => beside.length > 0);
  const isBeside = hasTiles || Beside !== null || hasTable || (hasStrip && stripPlace === 'beside');
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
      bringInText(session, text);
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, [session]);
  // A question belongs to the page on which it was asked.
  useEffect(() => session.dialogs.close, [session]);
  useHotkeys('d', () => session.viewing.showDigits(!session.view.getState().hasDigits));
  useHotkeys('t', () => session.table.toggle());
  useHotkeys('l', () => session.viewing.showLive(!session.view.getState().isLive));
  useHotkeys('a', toggleStrip);
  useHotkeys('?', () => session.dialogs.ask('keys', true), { useKey: true });
  useHotkeys('delete', () => {
    // What has the focus, a label for one, would be meant.
    if (document.activeElement?.matches('body, .overlay') !== true) return;
    const newest = presentRuns(session.runs)
      .filter(({ state }) => state !== 'recording')
      .at(-1);
    if (newest !== undefined) void session.runActions.remove([newest]);
  });
  useHotkeys('r', () => session.regions.lookAt());
  useSheetKeys(session);
  return (
    <div className="page">
      <InvestigationHead page="Bench" />
      <SavingBar saver={session.saver} what="workings" />
      <div className={`bench ${hasLeft ? '' : 'left-folded'}`}>
        <SideColumn side="left" title="Sensors">
          <SensorColumn />
        </SideColumn>
        <BesideTraces
          beside={
            <SideColumn side="right" room="tablet" title={isGuided ? 'Guide' : 'Workings'}>
              {isGuided ? (
                <GuideSide beside={<BesideButton to="workings" />} />
              ) : (
                <WorkingsColumn
                  title="Workings"
                  ofRuns
                  beside={<BesideButton to="guide" />}
                  empty="Drag over a trace to mark a region. What can be worked out on it is offered under the traces, and is worked out for every run that is shown."
                />
              )}
            </SideColumn>
          }
        >
          <main className="middle">
            <RecorderBar />
            <GatePanel />
            {panels.map((Panel, i) => (
              <Panel key={i} />
            ))}
            <FirstRunBar />
            <BenchTools />
            <MovedRuns />
            <div className={`stage-of-traces ${isBeside ? 'with-table' : ''}`}>
              <TraceStack instead={way === 'away' ? undefined : <LiveOrSteps />} />
              <BesideTiles />
              <TablePanel />
              {Beside !== null && <Beside />}
              {stripPlace === 'beside' && <StageStrip investigation={session.id} />}
              {isLive && (
                <div className="live-over">
                  <LiveView />
                </div>
              )}
              <SetUp />
              <WaitingView />
            </div>
            {stripPlace === 'under' && <StageStrip investigation={session.id} />}
            <CursorBar />
            <RunChips pictured={session} inPlaceOfConditions={isOffering ? <OffersBar /> : null} />
          </main>
        </BesideTraces>
      </div>
      <ImportDialog />
      <PictureDialog />
      <KeysDialog />
      <Connect />
      <WorkOut ofRuns />
      <RelationChooser />
      <KnownConstants />
      <KeepTemplate />
      <BeginTemplate />
      <TemplateQuestion />
      <JointFitDialog />
      <CopyEntry />
      <LargeDigits />
    </div>
  );
}
