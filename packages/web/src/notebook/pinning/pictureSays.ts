import { type PinnedResult } from '@heuristor/contracts';
import { axisLabel, printedUnit } from '@heuristor/core';
import { type PictureContent } from '../../files/picture/content';
import { shortText } from '../../ui/numberText';

/** What a picture shows, for those who cannot see it: quantities, reach, runs, regions, fits, results. */
export function pictureSays(content: PictureContent, results: readonly PinnedResult[]): string {
  const { traces, graphs, frame, isTime, runs, regions } = content;
  const { horizontal, sight } = frame;
  const unit = printedUnit(horizontal.unit);
  const along = `${isTime ? 'time' : horizontal.symbol} from ${shortText(sight.from, 4)} to ${shortText(sight.to, 4)} ${unit}`;
  const drawn = traces.map(({ symbol, unit: own }) => axisLabel(symbol, own));
  const others = graphs.map(
    ({ vertical, horizontal: across }) => `${vertical.symbol} against ${across.symbol}`,
  );
  const fits = traces.some(({ curves }) => curves.length > 0) ? ' Fitted curves are drawn.' : '';
  const sentences = [
    drawn.length > 0 ? `Graph of ${drawn.join(', ')} against ${along.trim()}.${fits}` : '',
    others.length > 0 ? `Graph of ${others.join(', ')}.` : '',
    runs.length > 0
      ? `${runs.length === 1 ? 'Run' : 'Runs'}: ${runs.map(({ text }) => text).join('; ')}.`
      : '',
    ...regions.map(
      ({ letter, name, start, end }) =>
        `Region ${letter}${name === '' ? '' : ` (${name})`} from ${shortText(start, 4)} to ${shortText(end, 4)}.`,
    ),
    ...results.slice(0, 12).map(({ name, text }) => `${name} = ${text}.`),
  ];
  return sentences
    .filter((sentence) => sentence !== '')
    .join(' ')
    .slice(0, 4000);
}
