import { readingsIn } from '../calculus/windows';
import { type Series } from '../series/series';
import { choiceField, integerField, later, lengthField } from './fields';

/** How long the window of a filter is: in readings, or in the unit of the abscissa. */
export const windowFields = {
  windowPoints: integerField('Window', { low: 3, high: 1001, odd: true, usual: 9, slider: 61 }),
  windowIn: later(
    choiceField('Window in', [
      { key: 'readings', title: 'readings' },
      { key: 'seconds', title: 'seconds' },
    ]),
  ),
  windowLength: later(lengthField('Window / s', 0.2, 60)),
  degree: later(
    choiceField('Through', [
      { key: '2', title: 'a parabola' },
      { key: '3', title: 'a cubic' },
      { key: '4', title: 'a polynomial of degree 4' },
      { key: '5', title: 'a polynomial of degree 5' },
    ]),
  ),
} as const;

interface Window {
  windowPoints: number;
  windowIn: 'readings' | 'seconds';
  windowLength: number;
}

/** What of a window means nothing. */
export const idleOfWindow = ({ windowIn }: Window): string[] => [
  windowIn === 'readings' ? 'windowLength' : 'windowPoints',
];

/** The window in readings of a series. @throws Refusal */
export const pointsOf = ({ windowPoints, windowIn, windowLength }: Window, series: Series): number =>
  windowIn === 'readings' ? windowPoints : readingsIn(series, windowLength);

export const windowWords = ({ windowPoints, windowIn, windowLength }: Window): string =>
  windowIn === 'readings' ? `over ${windowPoints} readings` : `over ${windowLength} s`;

/** What to say of a window that was given in seconds. */
export const windowNote = ({ windowIn }: Window, points: number): string[] =>
  windowIn === 'readings' ? [] : [`The window holds ${points} readings.`];
