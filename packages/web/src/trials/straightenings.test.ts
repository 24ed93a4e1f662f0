import { calculatedCell, numberCell, parseUnit, sameName, typedQuantityOf } from '@heuristor/core';
import { straightenings } from './straightenings';
import { type ViewColumn } from './tableView';

const columnOf = (title: string, unit: string): ViewColumn => ({
  column: { kind: 'run', of: 'number', key: title, name: '', unit: '', hidden: false },
  key: title,
  title,
  subtitle: '',
  unit: parseUnit(unit),
  fault: null,
});

// A column can be called as a unit is: m in metres.
test.each([
  ['x', 'm', 'T', 's'],
  ['m', 'kg', 'mean of F', 'N'],
  ['t', 's', 'U', 'V'],
  ['n', '', 'k', ''],
])('every pair of axes of %s / %s and %s / %s has numbers', (x, ofX, y, ofY) => {
  const cells = new Map(
    [
      [x, ofX, 3],
      [y, ofY, 2],
    ].map(([name, unit, value]) => [
      sameName(String(name)),
      numberCell(
        typedQuantityOf(Number(value), 0.1, parseUnit(String(unit)), { root: String(name), label: '' }),
      ),
    ]),
  );
  const valueOf = (formula: string) => {
    const cell = calculatedCell(formula, '', { called: (name) => cells.get(name) ?? null });
    if (cell.kind !== 'number') throw new Error(`${formula}: ${JSON.stringify(cell)}`);
    return cell.quantity.value;
  };
  const all = straightenings(columnOf(x, ofX), columnOf(y, ofY)).flatMap(({ upright, across }) =>
    [upright, across].filter((one) => one !== null).map(valueOf),
  );
  const [square, ofSquare, inverse, second, third, logarithm] = all;
  expect([square, ofSquare, inverse, second, third].map((value) => Number(value.toPrecision(12)))).toEqual(
    [4, 9, 1 / 3, 1 / 9, 1 / 27].map((value) => Number(value.toPrecision(12))),
  );
  expect(logarithm).toBeCloseTo(Math.log(2), 12);
  expect(all.at(-1)).toBeCloseTo(Math.log(3), 12);
});
