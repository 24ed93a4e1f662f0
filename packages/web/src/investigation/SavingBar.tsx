import { Button } from 'react-bootstrap';
import { useStore } from 'zustand';
import { useSession } from './context';
import { useLasting } from '../ui/useLasting';

/** What is answered late is no trouble yet. */
const lateMilliseconds = 2500;

/** What stands between the sheet on the screen and the one that is stored: said over everything, with what can be done. */
export function SavingBar() {
  const { saver, history } = useSession();
  const state = useStore(saver.state);
  const isAway = useLasting(state.phase === 'offline' || state.phase === 'sending', lateMilliseconds);
  if (state.phase === 'conflict')
    return (
      <div className="conflict" role="alert">
        <span>These workings were changed on another screen while you changed them here.</span>
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
        <span>The workings are not stored: {state.sentence} They stay on this page while it is open.</span>
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
        The workings are not stored yet
        {state.phase === 'offline' ? `: ${state.sentence}` : ': no answer so far.'} Heuristor tries again;
        leave this page open.
      </span>
    </div>
  );
}
