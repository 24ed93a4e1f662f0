import { eventTitles, isCounted } from '../calculus/events';
import { type Anchor } from './fields';
import { type EntryBase, type NameOf } from './kind';
import { unitWords } from './unitWords';

const ordinals = ['', ' for the second time', ' for the third time'];

/** What an end of an entry is attached to, in words: "x rises through 0.2 m, 0.1 later". */
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
  const moved = offset === 0 ? '' : offset > 0 ? `, ${number(offset)} later` : `, ${number(-offset)} earlier`;
  return `${through}${which}${moved}`;
}
