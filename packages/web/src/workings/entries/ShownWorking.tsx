import { type Working, texUnit, writeResult } from '@heuristor/core';
import { useEffect, useState } from 'react';
import { useDocuments, useSession } from '../../investigation/context';
import { Typeset } from '../../ui/Typeset';
import { type ShownResult } from '../../workers/protocol';
import { written } from '../../ui/numberText';

interface Props {
  entryId: string;
  runId: string;
  result: ShownResult;
}

/** How a number came about: its formula, the same with the numbers put in, and what comes out. */
export function ShownWorking({ entryId, runId, result }: Props) {
  const session = useSession();
  const workings = useDocuments((documents) => documents.workings);
  const [working, setWorking] = useState<Working | null>(null);
  const { key, value, standardUncertainty, isWorkedOut = false } = result;
  useEffect(() => {
    let left = false;
    const show = (found: Working | null) => {
      if (!left) setWorking(found);
    };
    if (isWorkedOut)
      session.pool.ask(runId, 'working', { workings, entryId, key }).then(show, () => show(null));
    else show(null);
    return () => {
      left = true;
    };
    // Asked anew where the number is another one.
  }, [session, runId, workings, entryId, key, value, standardUncertainty, isWorkedOut]);
  if (working === null) return null;
  const { formula, putIn, least, says } = working;
  return (
    <div className="shown-working" role="region" aria-label={`How ${result.name} is worked out`}>
      <Typeset tex={large(formula)} block />
      {putIn !== '' && <Typeset tex={large(putIn)} block />}
      <Typeset tex={large(least ?? outOf(result))} block />
      {says !== undefined && <p className="note">{written(says)}</p>}
    </div>
  );
}

/** Fractions and sums as they stand in a line of their own. */
const large = (tex: string) => `\\displaystyle ${tex}`;

/** What comes out, as it is shown. */
function outOf({ value, standardUncertainty, unit }: ShownResult): string {
  const parts = writeResult(value, standardUncertainty);
  const power = parts.exponent === 0 ? '' : `\\times 10^{${parts.exponent}}`;
  return `= ${parts.value.replace('−', '-')}${power}\\,${texUnit(unit)}`;
}
