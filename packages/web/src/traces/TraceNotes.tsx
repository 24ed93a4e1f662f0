import { useView } from '../investigation/context';
import { type DrawnTrace, type Frame } from './drawn';
import { type RegionBounds, headHeight, labelWidth, pixelOf, plotLeft } from './geometry';
import { roomBeside } from './noteRoom';
import { leftOutWords } from './overLayer';

interface Props {
  trace: DrawnTrace;
  frame: Frame;
  /** Regions whose tabs stand in the same row. */
  regions: readonly RegionBounds[];
  /** Pixels that are taken at its left and right end, by labels. */
  taken: { left: number; right: number };
}

/** Air in a tab and about it. */
const tabAir = 14;

interface Note {
  text: string;
  short?: string;
  isWarning: boolean;
}

/** What a logarithmic axis cannot show. */
const logarithmNotes = (count: number, symbol: string): Note[] =>
  count === 0
    ? []
    : [
        {
          text: `${count === 1 ? 'One value' : `${count} values`} of ${symbol} not above 0: not on a logarithmic axis`,
          isWarning: true,
        },
      ];

/** What the marks on a trace are, and what is not drawn, in the row over it and beside the tabs of regions. */
export function TraceNotes({ trace, frame, regions, taken }: Props) {
  const width = useView(({ plotWidth }) => plotWidth);
  const { symbol, others, lacking, lines, notPositive = 0 } = trace;
  const markWords = leftOutWords(lines);
  const notes: Note[] = [
    // Where there is little room, what the marks are stands without what becomes of them.
    ...(markWords === null ? [] : [{ text: markWords, short: markWords.split(': ')[0], isWarning: false }]),
    ...logarithmNotes(notPositive, symbol),
    ...logarithmNotes(frame.notPositive, frame.horizontal.symbol),
    ...(others.length === 0
      ? []
      : [
          {
            text: `${others.length === 1 ? 'A run measures' : `${others.length} runs measure`} something else as ${symbol}, or along the axis; not drawn`,
            isWarning: true,
          },
        ]),
    ...(lacking.length === 0
      ? []
      : [
          {
            text: `${lacking.join(', ')}: a third unit, not drawn. A trace has two axes`,
            isWarning: true,
          },
        ]),
  ];
  if (notes.length === 0) return null;
  const tabs = regions.map(({ letter, name, start }) => {
    const left = Math.max(pixelOf(start, frame.sight, width), 0);
    return { left, right: left + labelWidth(`${letter} ${name}`) + tabAir };
  });
  const room = roomBeside(tabs, { left: taken.left, right: width - taken.right });
  if (room === null) return null;
  return (
    <div
      className="trace-notes"
      style={{ left: plotLeft() + room.left, width: room.right - room.left, height: headHeight() }}
    >
      {notes.map(({ text, short = text, isWarning }) => (
        <span key={text} className={`trace-note ${isWarning ? '' : 'low'}`} title={text}>
          {short}
          <span className="more">{text.slice(short.length)}</span>
        </span>
      ))}
    </div>
  );
}
