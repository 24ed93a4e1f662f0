import { type Unit, printedUnit, ucumCode, unitChoices } from '@heuristor/core';
import { UnitText } from './UnitText';

interface Props {
  /** What the result is called. */
  name: string;
  /** The unit it was worked out in. */
  of: Unit;
  /** The one it is shown in. */
  shown: Unit;
  isChosen: boolean;
  /** @param code UCUM code; null for the one that reads well */
  onChoose: (code: string | null) => void;
}

const itself = 'itself';

/** The unit behind a number: one press chooses another one. */
export function UnitChoice({ name, of, shown, isChosen, onChoose }: Props) {
  const choices = unitChoices(of);
  if (choices.length < 2)
    return shown.length === 0 ? null : (
      <>
        {' '}
        <UnitText unit={shown} />
      </>
    );
  return (
    <>
      {' '}
      <select
        className="unit-choice"
        aria-label={`Unit of ${name}`}
        value={ucumCode(shown)}
        onChange={({ target }) => onChoose(target.value === itself ? null : target.value)}
      >
        {choices.map((unit) => (
          <option key={ucumCode(unit)} value={ucumCode(unit)}>
            {printedUnit(unit)}
          </option>
        ))}
        {isChosen && <option value={itself}>as it reads well</option>}
      </select>
    </>
  );
}
