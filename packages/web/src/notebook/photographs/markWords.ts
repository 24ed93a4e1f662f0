import { shortText, resultText } from '../../ui/numberText';
import { type MarkKind, type NamedMark, type Size, lengthBy, scaleOf } from './marks';

export const markTitles: Readonly<Record<MarkKind, string>> = {
  arrow: 'Arrow',
  words: 'Words',
  scale: 'Scale',
  length: 'Length',
};

/** Lengths of apparatus are read in these. */
const units = [
  { symbol: 'm', metres: 1 },
  { symbol: 'cm', metres: 0.01 },
  { symbol: 'mm', metres: 0.001 },
] as const;

const unitFor = (metres: number) => units.find((unit) => metres >= unit.metres) ?? units[units.length - 1];

/** What stands at a mark; nothing at an arrow. */
export function wordsOfMark(mark: NamedMark, marks: readonly NamedMark[], size: Size): string {
  switch (mark.kind) {
    case 'arrow':
      return '';
    case 'words':
      return mark.words;
    case 'scale': {
      if (mark.metres === null) return '';
      const unit = unitFor(mark.metres);
      return `${shortText(mark.metres / unit.metres, 4)} ${unit.symbol}`;
    }
    case 'length': {
      const found = lengthBy(scaleOf(marks), mark, size);
      if (found === null) return '?';
      const unit = unitFor(found.value);
      return `${resultText(found.value / unit.metres, found.u / unit.metres)} ${unit.symbol}`;
    }
  }
}

/** What marks say, for whoever does not see them. */
export function marksSay(marks: readonly NamedMark[], size: Size): string {
  const said = marks.flatMap((mark) => {
    const words = wordsOfMark(mark, marks, size);
    return words === '' || words === '?'
      ? []
      : [mark.kind === 'words' ? words : `${markTitles[mark.kind].toLowerCase()} ${words}`];
  });
  return said.length === 0 ? '' : `Marked on it: ${said.join('; ')}.`;
}
