/** @jest-environment jsdom */
import { mathMl } from '../text/mathMl';
import { equationOf } from './math';

/** The parts of an equation by their names in the text document (ECMA-376, 22.1). */
const partsOf = (tex: string) => {
  const math = mathMl(tex);
  const parts = math === null ? null : equationOf(math);
  return parts === null ? null : JSON.stringify(parts).match(/"m:[a-zA-Z]+"/g);
};

test('fractions, roots and indices are native equations', () => {
  expect(partsOf('\\frac{a}{b}')).toEqual(expect.arrayContaining(['"m:f"', '"m:num"', '"m:den"']));
  expect(partsOf('\\sqrt{2}')).toContain('"m:rad"');
  expect(partsOf('\\sqrt[3]{x}')).toContain('"m:deg"');
  expect(partsOf('x_0')).toContain('"m:sSub"');
  expect(partsOf('x^2')).toContain('"m:sSup"');
  expect(partsOf('x_0^2')).toContain('"m:sSubSup"');
});

test('what has no such form is no equation here, and what is no formula is none', () => {
  expect(partsOf('\\begin{matrix} a & b \\end{matrix}')).toBeNull();
  expect(mathMl('\\frac{a}{')).toBeNull();
});

test('the TeX of a formula is no part of what is read', () => {
  expect(mathMl('T = 2\\pi')?.textContent).toBe('T=2π');
});
