import { useDocuments } from '../investigation/context';
import { recordingRun } from '../runs/runs';
import { WayMenu } from './WayMenu';
import { wayParts } from './wayParts';

/** What begins and ends a run in the way that was chosen, and the plan beside it. */
export function RecorderBar() {
  const isRecording = useDocuments(({ runs }) => recordingRun(runs) !== undefined);
  const isArmed = useDocuments(({ recorder }) => recorder.phase !== 'idle');
  const isReading = useDocuments(({ spots }) => spots.phase !== 'idle');
  const way = useDocuments(({ plan }) => plan.way);
  const isBusy = isRecording || isArmed;
  const { Bar, Line } = isBusy && !wayParts[way].stay ? wayParts.time : wayParts[way];
  const locked = isBusy || isReading;
  return (
    <div className="recorder">
      <Bar />
      <Line locked={locked} menu={<WayMenu disabled={locked} />} />
    </div>
  );
}
