import { type NamedResult, writeResult } from '@heuristor/core';
import { UnitText } from './UnitText';

/** A result as a physicist writes it, with its unit. Every digit is in the title, for those who need them. */
export function ResultText({ result }: { result: NamedResult }) {
  const { value, standardUncertainty, roundTo, unit } = result;
  const written = writeResult(value, standardUncertainty ?? roundTo);
  const pair = standardUncertainty !== null && written.uncertainty !== null;
  const body = pair ? `${written.value} ± ${written.uncertainty}` : written.value;
  const scaled = written.exponent !== 0;
  return (
    <span title={`all digits: ${value}${standardUncertainty === null ? '' : ` ± ${standardUncertainty}`}`}>
      {scaled && pair ? `(${body})` : body}
      {scaled && (
        <>
          {' × 10'}
          <sup className="power">{String(written.exponent).replace('-', '−')}</sup>
        </>
      )}
      {unit.length > 0 && ' '}
      <UnitText unit={unit} />
    </span>
  );
}
