import { type Unit, printedAtom } from '@heuristor/core';

/** A unit with true superscripts, never on two lines: m s⁻². */
export function UnitText({ unit }: { unit: Unit }) {
  return (
    <span className="text-nowrap">
      {unit.map(({ atom, power }, i) => (
        <span key={atom}>
          {i > 0 && '\u2009'}
          {printedAtom(atom)}
          {power !== 1 && <sup className="power">{String(power).replace('-', '−')}</sup>}
        </span>
      ))}
    </span>
  );
}
