import {
  AlignmentType,
  Document,
  Footer,
  Header,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Packer,
  PageNumber,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import { marksAsShapes } from '../photographs/drawMarks';
import { marksSay } from '../photographs/markWords';
import { pinnedTable, pinnedWhen, runWords } from '../pinning/pinWords';
import { type WrittenBlock, type WrittenNotebook } from '../written/collect';
import { type Written } from '../written/table';
import { formulaPictures } from './formulaPicture';
import { numbered, plainText, textWord } from './textWord';
import { photographUnder, pixelsOf } from './pixels';

/** The width between the margins of a page, in points of 1/96 inch. */
const room = 600;
const highest = 800;

const quiet = (text: string) =>
  new Paragraph({ children: [new TextRun({ text: plainText(text), color: '566A6C', size: 18 })] });
const titled = (text: string) =>
  text === ''
    ? []
    : [new Paragraph({ keepNext: true, children: [new TextRun({ text: plainText(text), bold: true })] })];
const captioned = (text: string) =>
  text === '' ? [] : [new Paragraph({ spacing: { after: 160 }, children: [new TextRun(plainText(text))] })];

function tableWord({ head, rows }: Written): Table {
  const cell = (text: string, bold: boolean) =>
    new TableCell({
      children: [new Paragraph({ children: [new TextRun({ text: plainText(text), bold })] })],
    });
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: [
      new TableRow({ tableHeader: true, cantSplit: true, children: head.map((text) => cell(text, true)) }),
      ...rows.map(
        (cells) => new TableRow({ cantSplit: true, children: cells.map((text) => cell(text, false)) }),
      ),
    ],
  });
}

function pictureWord(
  type: 'png' | 'jpg',
  data: Uint8Array,
  { width, height }: { width: number; height: number },
  says: string,
): Paragraph {
  const scale = Math.min(1, room / width, highest / height);
  return new Paragraph({
    keepNext: true,
    children: [
      new ImageRun({
        type,
        data,
        transformation: { width: Math.round(width * scale), height: Math.round(height * scale) },
        altText: { name: 'picture', title: '', description: says },
      }),
    ],
  });
}

async function blockWord(
  block: WrittenBlock,
  valueOf: WrittenNotebook['valueOf'],
): Promise<(Paragraph | Table)[]> {
  switch (block.kind) {
    case 'text':
      return textWord(block.text, { valueOf, pictures: await formulaPictures(block.text) });
    case 'pin': {
      const { content, title, caption } = block;
      const picture = await pixelsOf(content.picture, content.width, content.height);
      return [
        ...titled(title),
        quiet([...content.runs.map(runWords), `pinned ${pinnedWhen(content.made)}`].join('; ')),
        pictureWord('png', picture, content, content.says),
        ...(content.results.length > 0 ? [tableWord(pinnedTable(content))] : []),
        ...captioned(caption === '' ? ' ' : caption),
      ];
    }
    case 'table':
      return block.table.rows.length === 0
        ? titled(block.title)
        : [...titled(block.title), tableWord(block.table), ...captioned(' ')];
    case 'photograph': {
      const { jpeg, caption, marks } = block;
      const picture =
        marks.length === 0 ? jpeg : await photographUnder(jpeg, marksAsShapes(marks, block), block);
      const says = [caption === '' ? 'Photograph' : caption, marksSay(marks, block)]
        .filter(Boolean)
        .join('. ');
      return [pictureWord('jpg', picture, block, says), ...captioned(caption === '' ? ' ' : caption)];
    }
    case 'missing':
      return [quiet(block.words)];
  }
}

/** A notebook as a text document (Office Open XML, ECMA-376), with formulas as native equations and tables as tables. */
export async function notebookWord({ title, names, blocks, valueOf }: WrittenNotebook): Promise<Blob> {
  const children: (Paragraph | Table)[] = [];
  for (const block of blocks) children.push(...(await blockWord(block, valueOf)));
  const levels = Array.from({ length: 9 }, (_, level) => ({
    level,
    format: LevelFormat.DECIMAL,
    text: `%${level + 1}.`,
    alignment: AlignmentType.START,
    style: { paragraph: { indent: { left: 720 * (level + 1), hanging: 360 } } },
  }));
  return Packer.toBlob(
    new Document({
      title: plainText(title),
      styles: { default: { document: { run: { font: 'Arial', size: 21 } } } },
      numbering: { config: [{ reference: numbered, levels }] },
      sections: [
        {
          headers: { default: new Header({ children: [quiet([...names, title].join(' · '))] }) },
          footers: {
            default: new Footer({
              children: [
                new Paragraph({
                  alignment: AlignmentType.RIGHT,
                  children: [new TextRun({ children: [PageNumber.CURRENT, ' / ', PageNumber.TOTAL_PAGES] })],
                }),
              ],
            }),
          },
          children: [
            new Paragraph({ heading: HeadingLevel.HEADING_1, children: [new TextRun(plainText(title))] }),
            ...children,
          ],
        },
      ],
    }),
  );
}
