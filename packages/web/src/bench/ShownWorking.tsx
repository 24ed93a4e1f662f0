import { type Working, texUnit, writeResult } from '@heuristor/core';
import { Typeset } from '../ui/Typeset';
import { type ShownResult } from '../workers/protocol';

/** How a number came about: its formula, the same with the numbers put in, and what comes out. */
export function ShownWorking({ working, result }: { working: Working; result: ShownResult }) {
  const { value, exponent } = writeResult(result.value, result.standardUncertainty);
  const power = exponent === 0 ? '' : `\\times 10^{${exponent}}`;
  const tex = `= ${value.replace('−', '-')}${power}\\,${texUnit(result.unit)}`;
  return (
    <div className="shown-working" role="region" aria-label={`How ${result.name} is worked out`}>
      <Typeset tex={working.formula} block />
      <Typeset tex={working.putIn} block />
      <Typeset tex={tex} block />
    </div>
  );
}
