import { useDocuments, useFrontRun, useSession } from '../investigation/context';
import { useShownTable } from './context';
import { mostGroups } from './derivedRun';
import { MarkerSample } from '../runs/MarkerSample';

/** Which points are of which group, where groups are drawn apart; the results of the one that is pressed stand in front. */
export function GroupLegend() {
  const session = useSession();
  const runs = useDocuments((documents) => documents.runs);
  const front = useFrontRun();
  const isApart = useShownTable()?.plot.apart != null;
  if (runs.length < 2)
    return isApart ? (
      <span className="quiet">One group, or more than {mostGroups}: drawn together.</span>
    ) : null;
  return (
    <span className="group-legend" role="group" aria-label="Groups">
      {runs.map(({ id, name, style }) => (
        <button
          key={id}
          className={`group-name ${id === front?.id ? 'chosen' : ''}`}
          aria-pressed={id === front?.id}
          onClick={() => session.viewing.bringToFront(id)}
        >
          <MarkerSample style={style} /> {name}
        </button>
      ))}
    </span>
  );
}
