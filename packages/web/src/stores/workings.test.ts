import { type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { type Line } from '@heuristor/core';
import {
  changeLine,
  changeWorkings,
  endStep,
  holdStep,
  layOut,
  useWorkings,
  workingsHistory,
} from './workings';

const region: Line = { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 1, end: 2 };
const sheet = (lines: Line[]): WorkingsDocument => ({ ...emptyWorkings, lines });
const end = () => {
  const [line] = useWorkings.getState().workings.lines;
  return line?.kind === 'region' ? line.end : null;
};
const { undo, redo } = workingsHistory.getState();

beforeEach(() => layOut(sheet([region])));

test('a sheet that is laid out has no history: nobody undoes into another investigation', () => {
  undo();
  expect(end()).toBe(2);
});

test('every change is one step back and one step forth', () => {
  changeLine('A', { end: 3 });
  changeLine('A', { end: 4 });
  undo();
  expect(end()).toBe(3);
  undo();
  expect(end()).toBe(2);
  redo();
  redo();
  expect(end()).toBe(4);
});

test('a drag of many changes is one step', () => {
  for (let i = 0; i < 50; i++) {
    changeLine('A', { end: 3 + i / 10 });
    holdStep();
  }
  endStep();
  undo();
  expect(end()).toBe(2);
  redo();
  expect(end()).toBeCloseTo(7.9, 12);
});

test('a change that changes nothing is no step', () => {
  changeLine('A', { end: 3 });
  changeWorkings((workings) => workings);
  undo();
  expect(end()).toBe(2);
});
