import {
  Refusal,
  leadingNumber,
  parseUnit,
  printedUnit,
  significantDigits,
  typedQuantity,
} from '@heuristor/core';
import { Failure } from '../failure';
import { type CheckedKind } from './kind';
import { isTolerated } from './tolerated';

const countOf = ({ least, most }: { least: number; most: number }) =>
  least === most
    ? `${least} significant digit${least === 1 ? '' : 's'}`
    : `${least} to ${most} significant digits`;

export const number: CheckedKind<'number'> = {
  kind: 'number',
  check: ({ unit, digits }, right, { text }) => {
    const expected = parseUnit(unit);
    const value = typed(() => typedQuantity(text, expected));
    if (unit !== '' && leadingNumber(text)?.rest === '')
      throw new Failure('invalid-request', `Type the unit too, such as ${printedUnit(expected)}.`);
    const isValue = isTolerated(value, right);
    const count = typed(() => significantDigits(text));
    if (!isValue || digits === null || (count >= digits.least && count <= digits.most))
      return { isRight: isValue, says: '' };
    return {
      isRight: false,
      says: `The value is right. Write it with ${countOf(digits)}; this has ${count}.`,
    };
  },
};

function typed<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof Refusal) throw new Failure('invalid-request', error.message);
    throw error;
  }
}
