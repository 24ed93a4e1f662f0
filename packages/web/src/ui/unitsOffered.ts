import { conversionBetween, parseUnit, ucumCode } from '@heuristor/core';

/** Units that teachers ask for, in groups of one kind. */
const offered = [
  ['m', 'cm', 'mm', '[ft_i]', '[in_i]'],
  ['rad', 'deg', '{turn}'],
  ['rad.s-1', 'deg.s-1', '{turn}.s-1', '{turn}.min-1'],
  ['m.s-1', 'cm.s-1', 'km.h-1'],
  ['N', 'mN', 'kN'],
  ['Pa', 'hPa', 'kPa', 'mbar'],
  ['T', 'mT', 'uT', 'G'],
  ['V', 'mV'],
  ['A', 'mA', 'uA'],
  ['K', 'Cel'],
  ['lx', 'klx'],
  ['s', 'ms', 'min'],
  ['Hz', 'kHz'],
];

/** Units in which a channel can be shown; its own one first. */
export function unitsFor(own: string): string[] {
  const unit = parseUnit(own);
  const group = offered.find((units) => units.some((code) => isConvertible(code, own))) ?? [];
  return [
    ...new Set([
      ucumCode(unit),
      ...group.filter((code) => isConvertible(code, own)).map((code) => ucumCode(parseUnit(code))),
    ]),
  ];
}

const isConvertible = (a: string, b: string): boolean =>
  conversionBetween(parseUnit(a), parseUnit(b)) !== null;
