import { type PinContent } from '@heuristor/contracts';
import DOMPurify from 'dompurify';
import { cleanShapes } from '../Shapes';
import { toBase64 } from '../base64';
import { pinnedTable, pinnedWhen, runWords } from '../pinning/pinWords';
import { marksAsShapes } from '../photographs/drawMarks';
import { marksSay } from '../photographs/markWords';
import { type WrittenBlock, type WrittenNotebook } from '../written/collect';
import { type Written } from '../written/table';
import { style } from './style';
import { textHtml } from './textHtml';

type WrittenPhotograph = Extract<WrittenBlock, { kind: 'photograph' }>;

/** An element with words or other elements in it; words are never taken for HTML. */
function made(tag: string, className: string, ...inside: (string | Node)[]): HTMLElement {
  const element = document.createElement(tag);
  if (className !== '') element.className = className;
  element.append(...inside);
  return element;
}

function tableOf({ head, rows }: Written): HTMLElement {
  const cell = (tag: string, words: string, scope?: string) => {
    const element = made(tag, tag === 'td' ? 'value' : '', words);
    if (scope !== undefined) element.setAttribute('scope', scope);
    return element;
  };
  const body = rows.map((cells) =>
    made('tr', '', ...cells.map((words, i) => (i === 0 ? cell('th', words, 'row') : cell('td', words)))),
  );
  return made(
    'table',
    '',
    made('thead', '', made('tr', '', ...head.map((words) => cell('th', words, 'col')))),
    made('tbody', '', ...body),
  );
}

function pinHtml(content: PinContent, title: string, caption: string): HTMLElement {
  const picture = made('div', '');
  picture.setAttribute('role', 'img');
  picture.setAttribute('aria-label', content.says);
  picture.innerHTML = cleanShapes(content.picture);
  const runs = content.runs.map(runWords);
  return made(
    'figure',
    '',
    made('div', 'title', title),
    made('div', 'origin', [...runs, `pinned ${pinnedWhen(content.made)}`].join('; ')),
    picture,
    ...(content.results.length > 0 ? [tableOf(pinnedTable(content))] : []),
    ...(caption === '' ? [] : [made('figcaption', '', caption)]),
  );
}

function photographHtml({ jpeg, width, height, caption, marks }: WrittenPhotograph): HTMLElement {
  const picture = document.createElement('img');
  picture.src = `data:image/jpeg;base64,${toBase64(jpeg)}`;
  const says = marksSay(marks, { width, height });
  picture.alt = [caption === '' ? 'Photograph without a caption' : caption, says].filter(Boolean).join('. ');
  const marked = made('div', 'marked', picture);
  if (marks.length > 0) {
    const over = made('div', 'marks');
    over.setAttribute('aria-hidden', 'true');
    over.innerHTML = cleanShapes(marksAsShapes(marks, { width, height }));
    marked.append(over);
  }
  return made('figure', '', marked, ...(caption === '' ? [] : [made('figcaption', '', caption)]));
}

function blockHtml(block: WrittenBlock, valueOf: WrittenNotebook['valueOf']): HTMLElement {
  switch (block.kind) {
    case 'text':
      return textHtml(block.text, valueOf);
    case 'pin':
      return pinHtml(block.content, block.title, block.caption);
    case 'table':
      return made('figure', '', made('div', 'title', block.title), tableOf(block.table));
    case 'photograph':
      return photographHtml(block);
    case 'missing':
      return made('p', 'gone', block.words);
  }
}

/**
 * A notebook as one file that opens anywhere: no scripts, nothing that is fetched, pictures as shapes with what they show in words,
 * numbers in real tables.
 */
export function notebookHtml({ title, names, blocks, valueOf }: WrittenNotebook): string {
  const body = made(
    'main',
    '',
    made(
      'header',
      '',
      made('div', 'names', ...names.map((one) => made('span', '', one))),
      made('h1', '', title),
    ),
    ...blocks.map((block) => blockHtml(block, valueOf)),
  );
  // What stands in a text may have been written by anybody.
  const clean = DOMPurify.sanitize(body, {
    USE_PROFILES: { html: true, svg: true, mathMl: true },
    FORBID_TAGS: ['style', 'form', 'input', 'button', 'video', 'audio'],
    FORBID_ATTR: ['style'],
    ADD_ATTR: ['target'],
  });
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'">
<meta name="viewport" content="width=device-width">
<title>${made('i', '', title).innerHTML}</title>
<style>${style}</style>
</head>
<body>
${clean}
</body>
</html>
`;
}
