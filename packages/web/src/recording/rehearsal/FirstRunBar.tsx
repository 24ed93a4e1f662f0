import { Button } from 'react-bootstrap';
import { Check2, XLg } from 'react-bootstrap-icons';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { presentRuns } from '../../runs/runs';
import { endFirstRun, useFirstRun } from './firstRun';

const steps = [
  'Take hold of what hangs or stands in the drawing, move it, and let it go. Then press Record, or the space bar.',
  'The run ends by itself. Watch it grow.',
  'Drag over a part of the trace that is even: that marks a region.',
  'Press one of the offers under the traces. Each says already what would come of it.',
] as const;
const done =
  'That is all: the result stands at the right with its uncertainty. Drag an edge of the region, and it follows; record again, and every run is worked out in the same way.';

/** How far somebody has come who is led through a first run. */
function useStep(): number {
  return useDocuments(({ runs, workings }) => {
    const present = presentRuns(runs);
    if (present.length === 0) return 0;
    if (present.some(({ state }) => state === 'recording')) return 1;
    const regions = workings.entries.filter(({ kind }) => kind === 'region');
    if (regions.length === 0) return 2;
    return workings.entries.some((entry) => 'region' in entry && entry.region !== null) ? 4 : 3;
  });
}

/** What comes next in a first run, one sentence at a time. */
export function FirstRunBar() {
  const { id } = useInvestigation();
  const isLed = useFirstRun(({ investigation }) => investigation === id);
  const at = useStep();
  if (!isLed) return null;
  return (
    <section className="first-run" aria-label="A first run">
      <ol aria-hidden>
        {steps.map((step, i) => (
          <li key={step} className={i < at ? 'done' : i === at ? 'now' : ''}>
            {i < at ? <Check2 /> : i + 1}
          </li>
        ))}
      </ol>
      <span role="status">{steps[at] ?? done}</span>
      <Button
        variant="bare"
        aria-label={at >= steps.length ? 'Done with the first run' : 'Leave the first run'}
        onClick={endFirstRun}
      >
        {at >= steps.length ? 'Done' : <XLg aria-hidden />}
      </Button>
    </section>
  );
}
