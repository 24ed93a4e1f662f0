import { Button } from 'react-bootstrap';
import { useDocuments, useFrontRun, useInvestigation, useView } from '../investigation/context';
import { shiftOf } from './aligning';
import { shownRuns } from './runs';
import { LineSample } from './LineSample';
import { NumberField } from '../ui/NumberField';

const mostNamed = 4;

/** Which of the shown runs do not lie where they were recorded: said on the graph, and mended there. */
export function MovedRuns() {
  const session = useInvestigation();
  const runs = useDocuments((documents) => documents.runs);
  const workings = useDocuments((documents) => documents.workings);
  const isShifting = useView((view) => view.handMode === 'shift');
  const front = useFrontRun();
  const moved = shownRuns(runs).filter(
    ({ id }) => shiftOf(workings, id) !== 0 || (isShifting && id === front?.id),
  );
  if (moved.length === 0) return null;
  return (
    <div className="moved-runs" role="note" aria-label="Runs that are moved in time">
      <span>{isShifting ? `Drag ${front?.name ?? ''} over the traces, or type:` : 'Moved in time:'}</span>
      {moved.slice(0, mostNamed).map((run) => (
        <span key={run.id} className="moved-run">
          <LineSample style={run.style} width={18} /> {run.name} by
          <NumberField
            label={`By how much ${run.name} is moved`}
            value={shiftOf(workings, run.id)}
            onCommit={(by) => session.shiftRuns(new Map([[run.id, by]]))}
          />
          {run.channels[0]?.timeUnit}
        </span>
      ))}
      {moved.length > mostNamed && <span>and {moved.length - mostNamed} more</span>}
      <Button variant="bare" onClick={() => session.shiftRuns(new Map(moved.map(({ id }) => [id, 0])))}>
        As recorded
      </Button>
      {isShifting && (
        <Button variant="plain" onClick={() => session.viewing.setHandMode('usual')}>
          Done
        </Button>
      )}
    </div>
  );
}
