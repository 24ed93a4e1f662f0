import { type Unit } from '@heuristor/core';
import { ResultText } from '../../ui/ResultText';
import { type ShownPasses } from '../../workers/protocol';
import { resultText } from '../../ui/numberText';

/** One quantity of what passed, in the run in front. */
export interface PassColumn {
  id: string;
  name: string;
  unit: Unit;
  passes: ShownPasses;
  /** Whether its mean says anything. */
  isAveraged: boolean;
}

/** One value with its uncertainty, where that is known and more than nothing; short, with only the digits that it leaves. */
export function PassValue({
  value,
  uncertainty,
  unit,
  isShort = false,
}: {
  value: number;
  uncertainty: number;
  unit: Unit;
  isShort?: boolean;
}) {
  const known = uncertainty > 0 ? uncertainty : null;
  const rounding = known ?? (Number.isInteger(value) ? 0.5 : null);
  const text = <ResultText result={{ value, halfWidth: isShort ? null : known, roundTo: rounding, unit }} />;
  return isShort && known !== null ? <span title={resultText(value, known)}>{text}</span> : text;
}
