import { type PinContent } from '@heuristor/contracts';
import DOMPurify from 'dompurify';
import { toBase64 } from '../base64';
import { cleanShapes } from '../Shapes';
import { type Written, frozenTable } from '../blocks/writtenTable';
import { headingFields } from '../document/notebookDocument';
import { type NotebookSession } from '../notebookSession';
import { type Quoted, type Quotation, quotedNow } from '../quotation';
import { writtenResults } from '../writtenResults';
import { writtenTrials } from '../writtenTrials';
import { pinnedWhen } from '../pinning/pinWords';
import { style } from './style';
import { runsQuoted, textHtml } from './textHtml';

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

/** The results that stood beside a picture, as a table. */
function pinnedTable({ runs, results }: PinContent): Written {
  if (runs.length < 2)
    return { head: ['result', 'value'], rows: results.map(({ name, text }) => [name, text]) };
  return {
    head: ['run', 'result', 'value'],
    rows: results.map(({ run, name, text }) => {
      const of = runs.find(({ id }) => id === run);
      return [of === undefined ? '' : `${of.number} · ${of.name}`, name, text];
    }),
  };
}

function pinHtml(content: PinContent, title: string, caption: string): HTMLElement {
  const picture = made('div', '');
  picture.setAttribute('role', 'img');
  picture.setAttribute('aria-label', content.says);
  picture.innerHTML = cleanShapes(content.picture);
  const runs = content.runs.map(
    ({ number, name, group, conditions }) =>
      `run ${number} · ${name}${group === '' ? '' : ` (${group})`}${conditions.length === 0 ? '' : `: ${conditions.join(', ')}`}`,
  );
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

async function photographHtml(address: string, caption: string): Promise<HTMLElement> {
  const picture = document.createElement('img');
  const answer = await fetch(address);
  if (!answer.ok) throw new Error('A photograph could not be loaded. Try again in a moment.');
  const bytes = new Uint8Array(await answer.arrayBuffer());
  picture.src = `data:image/jpeg;base64,${toBase64(bytes)}`;
  picture.alt = caption === '' ? 'Photograph without a caption' : caption;
  return made('figure', '', picture, ...(caption === '' ? [] : [made('figcaption', '', caption)]));
}

/**
 * A notebook as one file that opens anywhere: no scripts, nothing that is fetched, pictures as shapes with what they show in words,
 * numbers in real tables.
 * @param called the name of the investigation, for a notebook without a title
 */
export async function notebookHtml(notebook: NotebookSession, called: string): Promise<string> {
  const { document: pages, host } = notebook;
  await notebook.values.settled(valuesQuoted(notebook));
  const { workings, plan, runs } = host.documents.getState();
  const { outcomes } = notebook.values.state.getState();
  const valueOf = (quotation: Quotation): Quoted =>
    quotedNow(quotation, { workings, plan, runs, outcomeOf: (run) => outcomes.get(run), names: {} });
  const tables = await host.tables();
  const trialsNow = (id: string) => {
    const table = tables.find((one) => one.id === id) ?? (id === '' ? tables.at(0) : undefined);
    return table === undefined
      ? null
      : writtenTrials(table, { workings, conditions: plan.conditions, outcomes, runs });
  };
  const line = (id: string, name: string) => pages.lineOf(id, name)?.toString() ?? '';
  const blocks = await Promise.all(
    notebook.state
      .getState()
      .blocks.filter(({ isRemoved }) => !isRemoved)
      .map(async ({ id, kind }): Promise<HTMLElement | null> => {
        if (kind === 'text') {
          const fragment = pages.textOf(id);
          return fragment === null ? null : textHtml(fragment, valueOf);
        }
        if (kind === 'pin') {
          const pin = String(pages.block(id)?.get('pin'));
          return pinHtml(await notebook.pinOf(pin), line(id, 'title'), line(id, 'caption'));
        }
        if (kind === 'results') {
          const table =
            frozenTable(pages.block(id)?.get('frozen')) ?? writtenResults({ workings, outcomes, runs });
          return made('figure', '', made('div', 'title', line(id, 'title')), tableOf(table));
        }
        if (kind === 'trials') {
          const table =
            frozenTable(pages.block(id)?.get('frozen')) ?? trialsNow(String(pages.block(id)?.get('table')));
          return made(
            'figure',
            '',
            made('div', 'title', line(id, 'title')),
            ...(table === null ? [] : [tableOf(table)]),
          );
        }
        if (kind === 'photograph') {
          const address = notebook.addressOfPhotograph(String(pages.block(id)?.get('photograph')));
          return photographHtml(address, line(id, 'caption'));
        }
        return null;
      }),
  );
  const words = Object.fromEntries(headingFields.map((field) => [field, pages.heading(field).toString()]));
  const title = words.title === '' ? called : words.title;
  const names = [words.group, words.names, words.class, words.date].filter((one) => one !== '');
  const body = made(
    'main',
    '',
    made(
      'header',
      '',
      made('div', 'names', ...names.map((one) => made('span', '', one))),
      made('h1', '', title),
    ),
    ...blocks.filter((block) => block !== null),
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

/** The runs of which values have to be known before the notebook can be written down. */
function valuesQuoted({ document: pages, state, host }: NotebookSession): string[] {
  const { blocks } = state.getState();
  const present = blocks.filter(({ isRemoved }) => !isRemoved);
  const quoted = present.flatMap(({ id }) => {
    const text = pages.textOf(id);
    return text === null ? [] : runsQuoted(text);
  });
  const hasTable = present.some(
    ({ id, kind }) =>
      (kind === 'results' || kind === 'trials') && frozenTable(pages.block(id)?.get('frozen')) === null,
  );
  return [...new Set([...quoted, ...(hasTable ? host.documents.getState().runs.map(({ id }) => id) : [])])];
}
