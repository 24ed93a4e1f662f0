import { Button } from 'react-bootstrap';
import { ArrowsAngleContract, ArrowsAngleExpand } from 'react-bootstrap-icons';
import { useTrials, useTrialsState } from './context';

type Part = 'table' | 'plot';

/** Lets one part fill the page, and brings the other one back. */
export function FillButton({ part, other }: { part: Part; other: Part }) {
  const trials = useTrials();
  const isAlone = useTrialsState(({ fills }) => fills === part);
  const title = isAlone ? `Show the ${other}, too` : `Fill the page with the ${part}`;
  return (
    <Button
      variant="bare"
      aria-label={title}
      title={title}
      onClick={() => trials.fill(isAlone ? null : part)}
    >
      {isAlone ? <ArrowsAngleContract aria-hidden /> : <ArrowsAngleExpand aria-hidden />}
    </Button>
  );
}
