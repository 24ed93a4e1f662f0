import { type DisplayedResult, type Unit } from '@heuristor/core';
import { Button } from 'react-bootstrap';
import { ResultText } from './ResultText';
import { UnitChoice } from './UnitChoice';

interface Props {
  name: string;
  /** Its key among the results of an entry. */
  resultKey: string;
  isMain: boolean;
  result: DisplayedResult;
  /** The unit it is shown in, and whether somebody chose that one. */
  unit: Unit;
  isUnitChosen: boolean;
  /** @param code UCUM code; null for the unit that reads well */
  onUnit: (code: string | null) => void;
  /** What a press on the number opens, in words; null where it opens nothing. */
  opens: string | null;
  isOpen: boolean;
  onOpen: () => void;
}

/** A name and its number in a list of results. */
export function ResultRow(props: Props) {
  return (
    <>
      <span className={`name ${props.isMain ? 'main' : ''}`}>{props.name}</span>
      <ResultValue {...props} />
    </>
  );
}

/** A number with its unit: the number opens what is behind it, the unit is chosen beside it. */
export function ResultValue({
  name,
  resultKey,
  isMain,
  result,
  unit,
  isUnitChosen,
  onUnit,
  opens,
  isOpen,
  onOpen,
}: Props) {
  const text = <ResultText result={result} unit={unit} inPlaceOfUnit={<></>} />;
  return (
    <span className={`value ${isMain ? 'main' : ''}`} data-result={resultKey}>
      {opens === null ? (
        text
      ) : (
        <Button variant="number" aria-expanded={isOpen} aria-description={`opens ${opens}`} onClick={onOpen}>
          {text}
        </Button>
      )}
      <UnitChoice name={name} of={result.unit} shown={unit} isChosen={isUnitChosen} onChoose={onUnit} />
    </span>
  );
}
