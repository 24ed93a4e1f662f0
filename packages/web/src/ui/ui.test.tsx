/** @jest-environment jsdom */
import { parseUnit } from '@heuristor/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { NameField } from './NameField';
import { NumberField } from './NumberField';
import { toggleDecimalSign } from './decimalSign';
import { ResultText } from './ResultText';

const result = (value: number, halfWidth: number | null, unit: string) => ({
  value,
  halfWidth,
  roundTo: null,
  unit: parseUnit(unit),
});
const shown = (element: HTMLElement) => element.textContent.replace(/\u2009/g, ' ');

describe('a result on the screen', () => {
  test('is rounded to its uncertainty, with unit and a true minus sign', () => {
    const { container } = render(<ResultText result={result(-28.0213, 0.1123, 's-2')} />);
    expect(shown(container)).toBe('−28.02 ± 0.11 s−2');
    expect(container.querySelector('sup')?.textContent).toBe('−2');
  });
  test('shares one power of ten where it is small', () => {
    const { container } = render(<ResultText result={result(0.0000123, 0.0000012, 'm/s')} />);
    expect(shown(container)).toBe('(1.23 ± 0.12) × 10−5 m s−1');
  });
  test('is shown with the prefix that its size asks for, and with a comma where that was chosen', () => {
    const { container } = render(<ResultText result={result(0.0000123, 0.0000012, 'm')} />);
    expect(shown(container)).toBe('12.3 ± 1.2 µm');
    toggleDecimalSign();
    const { container: other } = render(<ResultText result={result(0.0000123, 0.0000012, 'm')} />);
    expect(shown(other)).toBe('12,3 ± 1,2 µm');
    toggleDecimalSign();
  });
  test('keeps every digit in its title', () => {
    const { container } = render(<ResultText result={result(1.0021168180204545, 0.0004297968482, '1')} />);
    expect(container.querySelector('span')?.title).toBe('all digits: 1.0021168180204545 ± 0.0004297968482');
  });
});

describe('a number that is typed', () => {
  const typed = (text: string) => {
    const commits: number[] = [];
    render(<NumberField label="Length" value={8} onCommit={(value) => commits.push(value)} />);
    const field = screen.getByLabelText('Length');
    fireEvent.change(field, { target: { value: text } });
    fireEvent.keyDown(field, { key: 'Enter' });
    return { commits, field };
  };
  test.each([
    ['2.5', 2.5],
    ['2,5', 2.5],
    ['−0.04', -0.04],
    ['1e-3', 0.001],
  ])('%s is taken as %p', (text, value) => expect(typed(text).commits).toEqual([value]));
  test.each(['', 'zwei', '1.2.3'])('%j is not taken, and a sentence says what would be right', (text) => {
    const { commits, field } = typed(text);
    expect(commits).toEqual([]);
    expect(field.getAttribute('aria-invalid')).toBe('true');
    const sentence = document.getElementById(field.getAttribute('aria-describedby') ?? '');
    expect(sentence?.textContent).toContain('Type one like 1.25');
  });
  test('the same number is no change', () => expect(typed('8').commits).toEqual([]));
});

test('a name takes effect on leaving, keeps the old one on Escape, and is never empty', () => {
  const commits: string[] = [];
  render(<NameField label="Name" value="run 1" onCommit={(name) => commits.push(name)} />);
  const field = screen.getByLabelText<HTMLInputElement>('Name');
  fireEvent.change(field, { target: { value: ' soft ' } });
  fireEvent.blur(field);
  fireEvent.change(field, { target: { value: '   ' } });
  fireEvent.blur(field);
  expect(field.value).toBe('run 1');
  fireEvent.change(field, { target: { value: 'other' } });
  fireEvent.keyDown(field, { key: 'Escape' });
  expect(field.value).toBe('run 1');
  expect(commits).toEqual(['soft']);
});
