import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { useHotkeys } from 'react-hotkeys-hook';
import { sentenceOf } from '../api/client';
import { InvestigationHead } from '../investigation/InvestigationHead';
import { SavingBar } from '../investigation/SavingBar';
import { SideColumn } from '../investigation/SideColumn';
import { SavedWord, StepButtons } from '../investigation/StepButtons';
import { useInvestigation } from '../investigation/context';
import { FoldButton } from '../investigation/FoldButton';
import { useSides } from '../investigation/sides';
import { Message } from '../ui/Message';
import { GuideSide } from '../guide/GuideSide';
import { useGuideBeside } from '../guide/useGuideBeside';
import { BlockFrame, goToBlock } from './BlockFrame';
import { BlockList } from './BlockList';
import { FirstBlocks } from './FirstBlocks';
import { Heading } from './Heading';
import { LeaveMenu } from './LeaveMenu';
import { NotebookProvider, useNotebook, useNotebookState } from './context';
import { type NotebookSession } from './notebookSession';
import { picturesIn, takePhotograph } from './photographs/takePhotograph';
import { TextTools } from './text/TextTools';

/** What was found, told with its evidence: pictures, texts that quote results, tables. */
export default function NotebookPage() {
  const session = useInvestigation();
  const [opened, setOpened] = useState<NotebookSession | { fault: string } | null>(null);
  useEffect(() => {
    let isWanted = true;
    session.notebook().then(
      (notebook) => isWanted && setOpened(notebook),
      (error: unknown) => isWanted && setOpened({ fault: sentenceOf(error) }),
    );
    return () => {
      isWanted = false;
    };
  }, [session]);
  // A question belongs to the page on which it was asked.
  useEffect(() => session.dialogs.close, [session]);
  useHotkeys('mod+z', () => session.history.undo(), { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', () => session.history.redo(), { preventDefault: true });
  return (
    <div className="page notebook-page">
      <InvestigationHead page="Notebook" />
      <SavingBar saver={session.saver} what="workings" />
      {opened === null ? (
        <Message title="Loading …" text="" />
      ) : 'fault' in opened ? (
        <Message title="The notebook cannot be opened" text={opened.fault} />
      ) : (
        <NotebookProvider value={opened}>
          <SavingBar saver={opened.saver} what="notes" />
          <OpenNotebook />
        </NotebookProvider>
      )}
    </div>
  );
}

function OpenNotebook() {
  const notebook = useNotebook();
  const { mayWrite, saver } = notebook;
  useEffect(() => {
    if (!mayWrite) return undefined;
    const onPaste = (event: ClipboardEvent) => {
      const pictures = picturesIn(event.clipboardData);
      // Where there are words too, they are what was meant.
      if (pictures.length === 0 || event.clipboardData?.types.includes('text/plain') === true) return;
      event.preventDefault();
      for (const picture of pictures) void takePhotograph(notebook, picture);
    };
    document.addEventListener('paste', onPaste, true);
    return () => document.removeEventListener('paste', onPaste, true);
  }, [notebook, mayWrite]);
  const blocks = useNotebookState((state) => state.blocks);
  const present = blocks.filter(({ isRemoved }) => !isRemoved);
  const { left: stands } = useSides();
  const { isThere, stands: guides, toggle } = useGuideBeside();
  const { hash } = useLocation();
  useEffect(() => {
    if (hash.startsWith('#block-')) goToBlock(hash.slice('#block-'.length));
  }, [hash]);
  return (
    <div className={`notebook ${stands ? '' : 'left-folded'} ${guides ? '' : 'right-folded'}`}>
      <SideColumn side="left" title="Blocks">
        <BlockList />
      </SideColumn>
      <main className="notebook-middle">
        <div className="notebook-bar">
          {mayWrite && <TextTools />}
          <span className="end">
            {mayWrite && <StepButtons />}
            <FoldButton side="left" title="Blocks" stands={stands} />
            <FoldButton side="right" title="Guide" stands={guides} onToggle={toggle} />
            <LeaveMenu />
            {mayWrite && <SavedWord saver={saver} />}
          </span>
        </div>
        <div className="notebook-scroll">
          <article className="notebook-sheet">
            <Heading />
            <div className="notebook-blocks">
              {present.map((block, i) => (
                <BlockFrame
                  key={block.id}
                  block={block}
                  isFirst={i === 0}
                  isLast={i === present.length - 1}
                />
              ))}
              {present.length === 0 && <FirstBlocks />}
            </div>
          </article>
        </div>
      </main>
      {isThere && (
        <SideColumn side="right" title="Guide">
          <GuideSide />
        </SideColumn>
      )}
    </div>
  );
}
