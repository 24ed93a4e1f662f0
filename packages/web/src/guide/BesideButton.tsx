import { useEffect, useRef } from 'react';
import { Button } from 'react-bootstrap';
import { SignpostSplit } from 'react-bootstrap-icons';
import { useInvestigation } from '../investigation/context';
import { type Beside, showBeside, takeFocus } from './besideTraces';

const titles: Record<Beside, string> = { guide: 'Guide', workings: 'Workings' };

/** The press that shows the other of the two that share the column beside the traces. */
export function BesideButton({ to }: { to: Beside }) {
  const { id } = useInvestigation();
  const button = useRef<HTMLButtonElement>(null);
  // The one that was pressed has gone with its column; this one has come in its place.
  useEffect(() => {
    if (takeFocus()) button.current?.focus();
  }, []);
  return (
    <Button
      ref={button}
      variant="plain"
      title={`Show the ${titles[to].toLowerCase()} here`}
      aria-label={titles[to]}
      onClick={() => showBeside(id, to)}
    >
      {to === 'guide' ? <SignpostSplit aria-hidden /> : titles[to]}
    </Button>
  );
}
