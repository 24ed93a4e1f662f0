import { type Node } from '@tiptap/pm/model';
import {
  type IRunOptions,
  type ParagraphChild,
  ExternalHyperlink,
  HeadingLevel,
  ImageRun,
  Math as Equation,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import { isSafeLink } from '../text/extensions';
import { mathMl } from '../text/mathMl';
import { quotationOf } from '../text/quote';
import { type WrittenNotebook, wordsOf } from '../written/collect';
import { type FormulaPicture } from './formulaPicture';
import { equationOf } from './math';

/** What a text refers to: values as they are now, and formulas that are pictures, by their TeX. */
export interface Referred {
  valueOf: WrittenNotebook['valueOf'];
  pictures: ReadonlyMap<string, FormulaPicture>;
}

/** The name of the numbering that numbered lists use. */
export const numbered = 'numbered';

/** Without what no XML can hold (W3C XML 1.0, 2.2). */
export const plainText = (text: string): string =>
  // eslint-disable-next-line no-control-regex -- these are the ones that are meant
  text.replaceAll(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]|\p{Surrogate}/gu, '');

const styleOf = (node: Node): Partial<IRunOptions> => {
  const has = (name: string) => node.marks.some(({ type }) => type.name === name);
  return {
    bold: has('bold'),
    italics: has('italic'),
    strike: has('strike'),
    ...(has('underline') ? { underline: {} } : {}),
    subScript: has('subscript'),
    superScript: has('superscript'),
  };
};

/** The parts of a line: words with their marks, values that are quoted, formulas as native equations, links. */
function lineOf(node: Node, referred: Referred): ParagraphChild[] {
  const { valueOf, pictures } = referred;
  return node.children.flatMap((child): ParagraphChild[] => {
    switch (child.type.name) {
      case 'quote':
        return [
          new TextRun({
            text: plainText(wordsOf(valueOf(quotationOf(child.attrs)), String(child.attrs.then))),
            ...styleOf(child),
          }),
        ];
      case 'formula': {
        const tex = String(child.attrs.tex);
        const math = mathMl(tex);
        const equation = math === null ? null : equationOf(math);
        const picture = pictures.get(tex);
        if (picture !== undefined) return [formulaRun(picture)];
        return [
          equation === null
            ? new TextRun(plainText(math?.textContent ?? tex))
            : new Equation({ children: equation }),
        ];
      }
      case 'hardBreak':
        return [new TextRun({ break: 1 })];
      default: {
        const run = new TextRun({ text: plainText(child.text ?? ''), ...styleOf(child) });
        const address = String(child.marks.find(({ type }) => type.name === 'link')?.attrs.href ?? '');
        return [isSafeLink(address) ? new ExternalHyperlink({ link: address, children: [run] }) : run];
      }
    }
  });
}

const formulaRun = ({ png, width, height, says }: FormulaPicture) =>
  new ImageRun({
    type: 'png',
    data: png,
    transformation: { width, height },
    altText: { name: 'formula', title: '', description: plainText(says) },
  });

interface Place {
  /** Of a list: its kind and how deep it lies. */
  list?: { isNumbered: boolean; level: number };
}

/** A rich text as paragraphs and tables of a text document. */
export function textWord(node: Node, referred: Referred, { list }: Place = {}): (Paragraph | Table)[] {
  return node.children.flatMap((child): (Paragraph | Table)[] => {
    switch (child.type.name) {
      case 'heading':
        return [
          new Paragraph({
            heading: child.attrs.level === 3 ? HeadingLevel.HEADING_3 : HeadingLevel.HEADING_2,
            children: lineOf(child, referred),
          }),
        ];
      case 'bulletList':
      case 'orderedList': {
        const level = Math.min((list?.level ?? -1) + 1, 8);
        return textWord(child, referred, { list: { isNumbered: child.type.name === 'orderedList', level } });
      }
      case 'table':
        return [
          new Table({
            width: { size: 100, type: WidthType.PERCENTAGE },
            rows: child.children.map(
              (row) =>
                new TableRow({
                  children: row.children.map(
                    (cell) => new TableCell({ children: textWord(cell, referred) as Paragraph[] }),
                  ),
                }),
            ),
          }),
        ];
      case 'paragraph':
        return [
          new Paragraph({
            children: lineOf(child, referred),
            ...(list === undefined
              ? { spacing: { after: 120 } }
              : list.isNumbered
                ? { numbering: { reference: numbered, level: list.level } }
                : { bullet: { level: list.level } }),
          }),
        ];
      case 'horizontalRule':
        return [new Paragraph({ thematicBreak: true })];
      default:
        return textWord(child, referred, list === undefined ? {} : { list });
    }
  });
}
