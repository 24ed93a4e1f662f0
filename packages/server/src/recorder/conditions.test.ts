import { type Level, usualPlan } from '@heuristor/contracts';
import { source, through } from '../testing/recorderParts';
import { checkTogether, thresholdOf } from './conditions';

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
    [through(1, { unit: 'N' }), 'x is measured in m; a level in “N” cannot be compared with it.'],
    [through(1, { of: 'speed' }), 'x is measured in m; a level in “m” cannot be compared with it.'],
    [through(1, { quantity: 'F' }), 'The plan waits for “F”, and no sensor that sends measures it.'],
    [through(20, { unit: 'cm' }), 'taken'],
  ])('%j', (level, words) => expect(refusal(level)).toContain(words));
});

describe('a beginning and an end that cannot follow each other are refused, with what would do', () => {
  const refusal = (first: Level, last: Level): string => {
    try {
      checkTogether(
        {
          ...usualPlan,
          begin: { kind: 'level', level: first, keptSeconds: 0 },
          end: { kind: 'level', level: last, atMostSeconds: 60 },
        },
        [source()],
      );
      return 'taken';
    } catch (error) {
      return (error as Error).message;
    }
  };
  const fall = { direction: 'fall' } as const;
  test.each([
    [
      through(1.5),
      through(90, { unit: 'cm' }),
      'A run that begins when x rises through 1.5 m is past 90 cm already, at which it is to end. Let it end above 1.5 m, or when x falls through 90 cm.',
    ],
    [
      through(0.1, fall),
      through(0.2, fall),
      'A run that begins when x falls through 0.1 m is past 0.2 m already, at which it is to end. Let it end below 0.1 m, or when x rises through 0.2 m.',
    ],
    [
      through(2, { of: 'speed', unit: 'm/s' }),
      through(1, { of: 'speed', unit: 'm/s' }),
      'A run that begins when the speed of x rises through 2 m s⁻¹ is past 1 m s⁻¹ already',
    ],
    // From the slipway's top to its foot, up and down again, one period of a swing: all these can happen.
    [through(0.005), through(0.9), 'taken'],
    [through(0.9), through(0.9, fall), 'taken'],
    [through(0.5), through(0.5), 'taken'],
    [through(50, { unit: 'cm' }), through(0.5), 'taken'],
    [through(1.5), through(1, { of: 'speed', unit: 'm/s' }), 'taken'],
  ])('%j, then %j', (first, last, words) => expect(refusal(first, last)).toContain(words));
});
