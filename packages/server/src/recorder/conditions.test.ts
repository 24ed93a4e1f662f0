import { type Level } from '@heuristor/contracts';
import { source, through } from '../testing/recorderParts';
import { thresholdOf } from './conditions';

describe('what can never happen is refused with the reason', () => {
  const refusal = (level: Level): string => {
    try {
      thresholdOf(level, [source()]);
      return 'taken';
    } catch (error) {
      return (error as Error).message;
    }
  };
  test.each([
    [through(9), 'x never reaches 9 m: its sensor sees −6 to 6 m. Choose a level between them.'],
    [through(1, { unit: 'N' }), 'x is measured in m; a level in “N” cannot be held against it.'],
    [through(1, { of: 'speed' }), 'x is measured in m; a level in “m” cannot be held against it.'],
    [through(1, { quantity: 'F' }), 'The plan waits for “F”, and no sensor that sends brings it.'],
    [through(20, { unit: 'cm' }), 'taken'],
  ])('%j', (level, words) => expect(refusal(level)).toContain(words));
});
