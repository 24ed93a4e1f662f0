import { grouped, writeResult } from '@heuristor/core';
import { type ShownResult } from '../workers/protocol';
import { UnitText } from './UnitText';

/** A result as a physicist writes it, with its unit. Every digit is in the title, for those who need them. */
export function ResultText({
  result,
}: {
  result: Pick<ShownResult, 'value' | 'halfWidth' | 'roundTo' | 'unit'>;
}) {
  const { value, halfWidth, roundTo, unit } = result;
  const written = writeResult(value, halfWidth ?? roundTo);
  const pair = halfWidth !== null && written.uncertainty !== null;
  const body = pair
    ? `${grouped(written.value)} ± ${grouped(written.uncertainty ?? '')}`
    : grouped(written.value);
  const scaled = written.exponent !== 0;
  return (
    <span title={`all digits: ${value}${halfWidth === null ? '' : ` ± ${halfWidth}`}`}>
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
