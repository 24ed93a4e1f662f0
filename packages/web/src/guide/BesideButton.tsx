import { Button } from 'react-bootstrap';
import { SignpostSplit } from 'react-bootstrap-icons';
import { useInvestigation } from '../investigation/context';
import { type Beside, showBeside } from './besideTraces';

const titles: Record<Beside, string> = { guide: 'Guide', workings: 'Workings' };

/** The press that shows the other of the two that share the column beside the traces. */
export function BesideButton({ to }: { to: Beside }) {
  const { id } = useInvestigation();
  return (
    <Button
      variant="plain"
      title={`Show the ${titles[to].toLowerCase()} here`}
      aria-label={titles[to]}
      onClick={() => showBeside(id, to)}
    >
      {to === 'guide' ? <SignpostSplit aria-hidden /> : titles[to]}
    </Button>
  );
}
