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
  const pin = async () => {
    if (isPinning || !hasRuns) return;
    setIsPinning(true);
    try {
      const { pinSeen } = await import('../notebook/pinning/pinSeen');
      const block = await pinSeen(session, pictured);
      tell({
        kind: 'news',
        text: 'What you see is pinned to the notebook.',
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
    <Button
      variant="plain"
      disabled={!hasRuns}
      aria-busy={isPinning}
      title="Keep what is seen as a block of the notebook, with its runs, regions and results"
      onClick={() => void pin()}
    >
      {isPinning ? 'Pinning …' : 'Pin'} <kbd>N</kbd>
    </Button>
  );
}
