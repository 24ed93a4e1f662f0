import { Button } from 'react-bootstrap';
import { ArrowClockwise, ArrowCounterclockwise } from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { useInvestigation } from './context';
import { type Saver } from './saver';

/** What was done last on this page is taken back, and taken again; each says what it was. */
export function StepButtons() {
  const { history } = useInvestigation();
  const steps = useStore(history.state);
  return (
    <>
      <Button
        variant="plain"
        aria-label="Undo"
        title={`Undo${steps.undo === null ? '' : `: ${steps.undo}`} (Ctrl Z)`}
        disabled={steps.undo === null}
        onClick={() => history.undo()}
      >
        <ArrowCounterclockwise aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Redo"
        title={`Redo${steps.redo === null ? '' : `: ${steps.redo}`} (Ctrl Shift Z)`}
        disabled={steps.redo === null}
        onClick={() => history.redo()}
      >
        <ArrowClockwise aria-hidden />
      </Button>
    </>
  );
}

/** Whether a document is stored, for those who hear rather than see it. */
export function SavedWord<T>({ saver }: { saver: Saver<T> }) {
  const phase = useStore(saver.state, (state) => state.phase);
  return (
    <span className="visually-hidden" data-testid="saving">
      {phase === 'clean' ? 'saved' : phase === 'offline' || phase === 'refused' ? 'not saved' : 'saving'}
    </span>
  );
}
