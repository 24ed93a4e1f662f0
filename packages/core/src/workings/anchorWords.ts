import { eventTitles, isCounted } from '../calculus/events';
import { type Anchor } from './fields';
import { type EntryBase, type NameOf } from './kind';
import { unitWords } from './unitWords';

const ordinals = ['', ' for the second time', ' for the third time'];

/** What an end of an entry is attached to, in words: "x rises through 0.2 m, 0.1 s later". */
export function anchorWords(
  { event, of, level, count, offset }: Anchor,
  nameOf: NameOf,
  { toldIn }: Pick<EntryBase, 'toldIn'>,
): string {
  const number = (value: number) => String(Number(value.toPrecision(4))).replace('-', '−');
  const what =
    event === 'begins' || event === 'ends' || event === 'edge'
      ? eventTitles[event]
      : eventTitles[event].replace(/^it /, `${nameOf(of)} `);
  const through =
    event === 'rises' || event === 'falls'
      ? what.replace('a level', number(level) + unitWords(toldIn, of))
      : what;
  const which = isCounted(event) && count > 1 ? (ordinals[count - 1] ?? `, no. ${count}`) : '';
  // What is no time is the number of a reading.
  const second = nameOf('t') === 't' ? ' s' : '';
  const far = `${number(Math.abs(offset))}${second}`;
  const moved = offset === 0 ? '' : `, ${far} ${offset > 0 ? 'later' : 'earlier'}`;
  return `${through}${which}${moved}`;
}
