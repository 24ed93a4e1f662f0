import { useDocuments, useFrontRun, useSession } from '../investigation/context';
import { runStyle } from '../runs/runStyles';

/** Which points are of which group, where groups are drawn apart; the results of the one that is pressed stand in front. */
export function GroupLegend() {
  const session = useSession();
  const runs = useDocuments((documents) => documents.runs);
  const front = useFrontRun();
  if (runs.length < 2) return null;
  return (
    <span className="group-legend" role="group" aria-label="Groups">
      {runs.map(({ id, name, style }) => (
        <button
          key={id}
          className={`group-name ${id === front?.id ? 'chosen' : ''}`}
          aria-pressed={id === front?.id}
          onClick={() => session.viewing.bringToFront(id)}
        >
          <span className="dot" style={{ background: runStyle(style).color }} aria-hidden /> {name}
        </button>
      ))}
    </span>
  );
}
