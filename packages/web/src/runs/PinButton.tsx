import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useHotkeys } from 'react-hotkeys-hook';
import { useNavigate } from 'react-router';
import { useStore } from 'zustand';
import { addressOf } from '../investigation/addresses';
import { useInvestigation } from '../investigation/context';
import { type SheetSession } from '../investigation/sheetSession';
import { tell } from '../ui/noticeStore';
import { shownRuns } from './runs';

interface Props {
  /** What is pinned; null where there is nothing to be seen. */
  pictured: SheetSession | null;
}

/** Keeps what is seen as a block of the notebook. */
export function PinButton({ pictured }: Props) {
  return pictured === null ? null : <Pin pictured={pictured} />;
}

function Pin({ pictured }: { pictured: SheetSession }) {
  const session = useInvestigation();
  const navigate = useNavigate();
  const [isPinning, setIsPinning] = useState(false);
  const hasRuns = useStore(pictured.documents, ({ runs }) => shownRuns(runs).length > 0);
  const again = useStore(session.pinAgain.state, ({ wanted }) =>
    wanted !== null && (wanted.of === 'trials') === pictured.isOfTables ? wanted : null,
  );
  const pin = async () => {
    if (isPinning || !hasRuns) return;
    setIsPinning(true);
    try {
      const { pinSeen } = await import('../notebook/pinning/pinSeen');
      const block = await pinSeen(session, pictured, again?.block ?? null);
      if (again !== null) session.pinAgain.leave();
      tell({
        kind: 'news',
        text:
          again === null
            ? 'What you see is pinned to the notebook.'
            : `“${again.title}” in the notebook shows what you see now.`,
        action: {
          label: 'Look at it',
          run: () => void navigate(`${addressOf(session.id, { path: 'notebook' })}#block-${block}`),
        },
      });
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      tell({ kind: 'fault', text: `Nothing was pinned. ${why}` });
    } finally {
      setIsPinning(false);
    }
  };
  useHotkeys('n', () => void pin());
  return (
    <>
      {again !== null && (
        <Button variant="plain" onClick={() => session.pinAgain.leave()}>
          Leave “{again.title}” as it was
        </Button>
      )}
      <Button
        variant={again === null ? 'plain' : 'act'}
        disabled={!hasRuns}
        aria-busy={isPinning}
        title={
          again === null
            ? 'Keep what is seen as a block of the notebook, with its runs, regions and results'
            : `Let “${again.title}” in the notebook show what is seen now`
        }
        onClick={() => void pin()}
      >
        {isPinning ? 'Pinning …' : again === null ? 'Pin' : 'Pin anew'} <kbd>N</kbd>
      </Button>
    </>
  );
}
