import { type Unit, printedAtom } from '@heuristor/core';

/** A unit with true superscripts: m s⁻². */
export function UnitText({ unit }: { unit: Unit }) {
  return (
    <>
      {unit.map(({ atom, power }, i) => (
        <span key={atom}>
          {i > 0 && '\u2009'}
          {printedAtom(atom)}
          {power !== 1 && <sup className="power">{String(power).replace('-', '−')}</sup>}
        </span>
      ))}
    </>
  );
}
