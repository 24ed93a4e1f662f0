import { type PinContent } from '@heuristor/contracts';
import { type Node } from '@tiptap/pm/model';
import { getSchema } from '@tiptap/core';
import { yXmlFragmentToProseMirrorRootNode } from '@tiptap/y-tiptap';
import { type XmlFragment, XmlElement } from 'yjs';
import { sentenceOf } from '../../api/client';
import { countedRuns } from '../../trials/counted';
import { headingFields } from '../document/notebookDocument';
import { filmCaption, frameSeconds } from '../films/filmWords';
import { type NamedMark, marksIn } from '../photographs/marks';
import { type NotebookSession } from '../notebookSession';
import { type Quotation, type Quoted, quotedNow } from '../quotation';
import { textExtensions } from '../text/extensions';
import { quotationOf } from '../text/quote';
import { runsAnswered, sketchesOf, writtenAnswers } from './answers';
import { writtenResults } from './results';
import { type Written, frozenTable } from './table';
import { writtenTrials } from './trials';

/** A block as it is written down, in whichever form. */
export type WrittenBlock =
  | { kind: 'text'; text: Node }
  | { kind: 'pin'; content: PinContent; title: string; caption: string }
  | { kind: 'table'; table: Written; title: string }
  | {
      kind: 'photograph';
      jpeg: Uint8Array;
      width: number;
      height: number;
      caption: string;
      marks: readonly NamedMark[];
    }
  /** It cannot be had: why. */
  | { kind: 'missing'; words: string };

export interface WrittenNotebook {
  title: string;
  /** Group, names, class and date, those that were typed. */
  names: string[];
  blocks: WrittenBlock[];
  valueOf(quotation: Quotation): Quoted;
}

/**
 * All of a notebook as it stands, with the values that it quotes, to be written down in a form that leaves the room.
 * @param called the name of the investigation, for a notebook without a title
 */
export async function collected(notebook: NotebookSession, called: string): Promise<WrittenNotebook> {
  const { document: pages, host } = notebook;
  await notebook.values.settled(runsNeeded(notebook));
  const { workings, plan, runs } = host.documents.getState();
  const { outcomes } = notebook.values.state.getState();
  const schema = getSchema(textExtensions);
  const line = (id: string, name: string) => pages.lineOf(id, name)?.toString() ?? '';
  const field = (id: string, name: string) => pages.block(id)?.get(name);
  const trialsNow = async (id: string): Promise<Written> => {
    const tables = await host.tables();
    const table = tables.find((one) => one.id === id) ?? (id === '' ? tables.at(0) : undefined);
    const written =
      table === undefined
        ? null
        : writtenTrials(table, { workings, conditions: plan.conditions, outcomes, runs });
    return written ?? { head: [], rows: [] };
  };
  const now = (quotation: Quotation) =>
    quotedNow(quotation, { workings, plan, runs, outcomeOf: (run) => outcomes.get(run), names: {} });
  const written = async (id: string, kind: string | null): Promise<WrittenBlock[]> => {
    const title = line(id, 'title');
    const caption = line(id, 'caption');
    switch (kind) {
      case 'text': {
        const fragment = pages.textOf(id);
        return fragment === null
          ? []
          : [{ kind: 'text', text: yXmlFragmentToProseMirrorRootNode(fragment, schema) }];
      }
      case 'pin':
        return [{ kind, content: await notebook.pinOf(String(field(id, 'pin'))), title, caption }];
      case 'results':
      case 'trials': {
        const table =
          frozenTable(field(id, 'frozen')) ??
          (kind === 'results'
            ? writtenResults({ workings, outcomes, runs })
            : await trialsNow(String(field(id, 'table'))));
        return [{ kind: 'table', table, title }];
      }
      case 'answers': {
        const { items } = (await host.guide()).guide;
        const table = frozenTable(field(id, 'frozen')) ?? writtenAnswers(items, pages, now);
        return [{ kind: 'table', table, title }, ...(await sketchesOf(items, pages))];
      }
      case 'photograph':
      case 'film': {
        const answer = await fetch(notebook.addressOfPhotograph(String(field(id, 'photograph'))));
        if (!answer.ok) return [{ kind: 'missing', words: 'A photograph that could not be loaded.' }];
        const jpeg = new Uint8Array(await answer.arrayBuffer());
        const [width, height] = ['width', 'height'].map((name) => Number(field(id, name)));
        const said = kind === 'film' ? filmCaption(caption, frameSeconds(field(id, 'seconds'))) : caption;
        const marks = kind === 'film' ? [] : marksIn(pages.block(id)?.entries() ?? []);
        return [{ kind: 'photograph', jpeg, width, height, caption: said, marks }];
      }
      default:
        return [];
    }
  };
  const present = notebook.state.getState().blocks.filter(({ isRemoved }) => !isRemoved);
  const blocks = await Promise.all(
    present.map(({ id, kind }) =>
      written(id, kind).catch((error: unknown): WrittenBlock[] => [
        { kind: 'missing', words: sentenceOf(error) },
      ]),
    ),
  );
  const words = Object.fromEntries(headingFields.map((name) => [name, pages.heading(name).toString()]));
  return {
    title: words.title === '' ? called : words.title,
    names: [words.group, words.names, words.class, words.date].filter((one) => one !== ''),
    blocks: blocks.flat(),
    valueOf: now,
  };
}

/** A value as it is written where nobody can ask any more. */
export const wordsOf = (quoted: Quoted, then: string): string =>
  quoted.kind === 'value' ? quoted.text : quoted.kind === 'missing' ? `${then} (gone: ${quoted.why})` : then;

/** The runs of which values have to be known before the notebook can be written down. */
function runsNeeded({ document: pages, state, host }: NotebookSession): string[] {
  const present = state.getState().blocks.filter(({ isRemoved }) => !isRemoved);
  const quoted = present.flatMap(({ id }) => {
    const text = pages.textOf(id);
    return text === null ? [] : runsQuoted(text);
  });
  const hasTable = present.some(
    ({ id, kind }) =>
      (kind === 'results' || kind === 'trials') && frozenTable(pages.block(id)?.get('frozen')) === null,
  );
  const counted = hasTable ? countedRuns(host.documents.getState().runs).map(({ id }) => id) : [];
  const answered = present.some(({ kind }) => kind === 'answers') ? runsAnswered(pages) : [];
  return [...new Set([...quoted, ...counted, ...answered])];
}

/** The runs that a text quotes. */
function runsQuoted(parent: XmlFragment): string[] {
  return parent.toArray().flatMap((node) => {
    if (!(node instanceof XmlElement)) return [];
    const attributes = node.getAttributes() as Record<string, unknown>;
    return node.nodeName === 'quote' ? [quotationOf(attributes).run] : runsQuoted(node);
  });
}
