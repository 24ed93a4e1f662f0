import { Button } from 'react-bootstrap';
import { useStore } from 'zustand';
import { useInvestigation } from './context';
import { type Saver } from './saver';
import { useLasting } from '../ui/useLasting';

/** What is answered late is no trouble yet. */
const lateMilliseconds = 2500;

/**
 * What stands between a document on the screen and the one that is stored: said over everything, with what can be done.
 * @param what it is called, as one of many
 */
export function SavingBar<T>({ saver, what }: { saver: Saver<T>; what: string }) {
  const { history } = useInvestigation();
  const state = useStore(saver.state);
  const isAway = useLasting(state.phase === 'offline' || state.phase === 'sending', lateMilliseconds);
  if (state.phase === 'conflict')
    return (
      <div className="conflict" role="alert">
        <span>These {what} were changed on another screen while you changed them here.</span>
        <Button variant="plain" onClick={() => saver.tell({ kind: 'take-theirs' })}>
          Take the other screen’s
        </Button>
        <Button variant="act" onClick={() => saver.tell({ kind: 'keep-mine' })}>
          Keep mine
        </Button>
      </div>
    );
  if (state.phase === 'refused')
    return (
      <div className="conflict" role="alert">
        <span>
          The {what} are not stored: {state.sentence} They stay on this page while it is open.
        </span>
        <Button variant="plain" onClick={() => history.undo()}>
          Undo the last step
        </Button>
        <Button variant="act" onClick={() => saver.tell({ kind: 'try-again' })}>
          Try again
        </Button>
      </div>
    );
  if (!isAway) return null;
  return (
    <div className="conflict" role="status">
      <span>
        The {what} are not stored yet
        {state.phase === 'offline' ? `: ${state.sentence}` : ': no answer so far.'} Heuristor tries again;
        leave this page open.
      </span>
    </div>
  );
}
