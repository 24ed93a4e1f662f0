import {
  type DisplayedResult,
  type Unit,
  grouped,
  printedUnit,
  readableUnitOf,
  resultInUnit,
} from '@heuristor/core';
import { type ReactNode } from 'react';
import { UnitText } from './UnitText';
import { writeResult } from './numberText';

interface Props {
  result: DisplayedResult;
  /** The unit it is given in; one that reads well where nothing is said. */
  unit?: Unit;
  /** What stands in the place of the unit. */
  inPlaceOfUnit?: ReactNode;
  /** Its value alone, as far as its uncertainty lets it be written; all of it is in the title. */
  isBare?: boolean;
}

/** A result as a physicist writes it, with its unit. Every digit, in the unit it was worked out in, is in the title. */
export function ResultText({ result, unit: wanted, inPlaceOfUnit, isBare = false }: Props) {
  const { value, halfWidth, roundTo, unit } = resultInUnit(result, wanted ?? readableUnitOf(result));
  const written = writeResult(value, halfWidth ?? roundTo);
  const pair = !isBare && halfWidth !== null && written.uncertainty !== null;
  const body = pair
    ? `${grouped(written.value)} ± ${grouped(written.uncertainty ?? '')}`
    : grouped(written.value);
  const scaled = written.exponent !== 0;
  const all = `${result.value}${result.halfWidth === null ? '' : ` ± ${result.halfWidth}`}`;
  return (
    <span title={`all digits: ${all} ${printedUnit(result.unit)}`.trimEnd()}>
      {scaled && pair ? `(${body})` : body}
      {scaled && (
        <>
          {' × 10'}
          <sup className="power">{String(written.exponent).replace('-', '−')}</sup>
        </>
      )}
      {isBare ||
        (inPlaceOfUnit ?? (
          <>
            {unit.length > 0 && ' '}
            <UnitText unit={unit} />
          </>
        ))}
    </span>
  );
}
