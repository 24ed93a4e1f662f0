import { shapePaper } from '../../files/picture/paper';
import { colours, onPaper } from '../../ui/colours';
import { type NamedMark, type Place, type Size } from './marks';
import { wordsOfMark } from './markWords';

/** Line, letters, heads of arrows and room beside a place, as shares of the longer side. */
const [thick, letters, head, aside] = [0.0035, 0.026, 0.02, 0.012];

/** Marks as shapes that lie over a photograph of this size; dark on a light edge, so that they are seen on anything. */
export const marksAsShapes = (marks: readonly NamedMark[], size: Size): string =>
  onPaper(() => shapesOf(marks, size));

function shapesOf(marks: readonly NamedMark[], size: Size): string {
  const { width, height } = size;
  const paper = shapePaper(width, height);
  const { context } = paper;
  const longer = Math.max(width, height);
  const at = ([x, y]: Place): [number, number] => [x * width, y * height];
  context.font = `600 ${Math.round(letters * longer)}px "Inter Variable"`;
  context.textBaseline = 'middle';
  context.lineJoin = context.lineCap = 'round';
  const twice = (trace: () => void) => {
    for (const [style, factor] of [
      [colours.onInk, 2.6],
      [colours.gap, 1],
    ] as const) {
      context.strokeStyle = style;
      context.lineWidth = factor * thick * longer;
      context.beginPath();
      trace();
      context.stroke();
    }
  };
  const line = (points: readonly (readonly [number, number])[]) =>
    points.forEach(([x, y], i) => (i === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
  const write = (words: string, x: number, y: number, align: CanvasTextAlign) => {
    context.textAlign = align;
    context.lineWidth = letters * longer * 0.3;
    context.strokeStyle = colours.onInk;
    context.strokeText(words, x, y);
    context.fillStyle = colours.gap;
    context.fillText(words, x, y);
  };
  for (const mark of marks) {
    const words = wordsOfMark(mark, marks, size);
    if (mark.kind === 'words') {
      const [x, y] = at(mark.at);
      const isRight = x > 0.7 * width;
      write(words, x + (isRight ? -1 : 1) * aside * longer, y, isRight ? 'right' : 'left');
      continue;
    }
    const [[x1, y1], [x2, y2]] = [at(mark.from), at(mark.to)];
    const along = Math.atan2(y2 - y1, x2 - x1);
    const beside = (x: number, y: number, turn: number): [number, number] => [
      x + head * longer * Math.cos(along + turn),
      y + head * longer * Math.sin(along + turn),
    ];
    twice(() => {
      line([
        [x1, y1],
        [x2, y2],
      ]);
      if (mark.kind === 'arrow')
        line([beside(x2, y2, 0.87 * Math.PI), [x2, y2], beside(x2, y2, -0.87 * Math.PI)]);
      else
        for (const [x, y] of [
          [x1, y1],
          [x2, y2],
        ])
          line([beside(x, y, Math.PI / 2), beside(x, y, -Math.PI / 2)]);
    });
    if (words === '') continue;
    const [middleX, middleY] = [(x1 + x2) / 2, (y1 + y2) / 2];
    // Beside a line that stands, over one that lies.
    if (Math.abs(y2 - y1) < Math.abs(x2 - x1)) write(words, middleX, middleY - letters * longer, 'center');
    else write(words, middleX + 2 * aside * longer, middleY, 'left');
  }
  return paper.finish();
}
