import { TextLeft } from 'react-bootstrap-icons';
import { EditorContent, useEditor } from '@tiptap/react';
import { useCallback, useEffect, useMemo, useSyncExternalStore } from 'react';
import * as Y from 'yjs';
import { useInvestigation } from '../../investigation/context';
import { useNotebook, useNotebookState } from '../context';
import { leaveText, writeIn } from '../text/activeEditor';
import { cleanPasted, refusesPasted } from '../text/pasted';
import { textExtensions } from '../text/extensions';
import { SharedFragment } from '../text/sharedFragment';
import { type BlockProps, type BlockView } from './block';

function TextView({ id }: BlockProps) {
  const notebook = useNotebook();
  const { history } = useInvestigation();
  const isFresh = useNotebookState(({ fresh }) => fresh === id);
  const fragment = useMemo(() => notebook.document.textOf(id), [notebook, id]);
  const editor = useEditor(
    {
      extensions: [...textExtensions, SharedFragment.configure({ fragment, history })],
      editable: notebook.mayWrite,
      injectCSS: false,
      editorProps: {
        transformPastedHTML: cleanPasted,
        handlePaste: (_view, event) => refusesPasted(event.clipboardData),
        handleDrop: (_view, event) => refusesPasted(event.dataTransfer),
        attributes: { class: 'rich-text', 'aria-label': 'Text', role: 'textbox', 'aria-multiline': 'true' },
      },
      onFocus: ({ editor: focused }) => writeIn(id, focused),
    },
    [fragment, history],
  );
  useEffect(() => {
    if (!isFresh) return;
    editor.commands.focus('end');
    notebook.taken(id);
  }, [editor, isFresh, notebook, id]);
  useEffect(() => () => leaveText(id), [id, editor]);
  return <EditorContent editor={editor} className="text-block" />;
}

const mostLetters = 60;

/** The first words of a text: its heading, or where it has none the beginning of its first line. */
export function firstWords(fragment: Y.XmlFragment | null): string {
  const words: string[] = [];
  const read = (node: unknown) => {
    if (node instanceof Y.XmlText)
      for (const { insert } of node.toDelta() as { insert: unknown }[])
        words.push(typeof insert === 'string' ? insert : '');
    else if (node instanceof Y.XmlElement) {
      if (node.nodeName === 'quote') words.push(String(node.getAttribute('then')));
      node.toArray().forEach(read);
    }
  };
  const text = () => words.join('').replaceAll(/\s+/g, ' ').trim();
  for (const node of fragment?.toArray() ?? []) {
    read(node);
    if (text() !== '') break;
  }
  return text().slice(0, mostLetters);
}

function useName(id: string): string {
  const fragment = useNotebook().document.textOf(id);
  const words = useSyncExternalStore(
    useCallback(
      (changed: () => void) => {
        fragment?.observeDeep(changed);
        return () => fragment?.unobserveDeep(changed);
      },
      [fragment],
    ),
    () => firstWords(fragment),
  );
  return words === '' ? 'Text' : words;
}

export const textBlock: BlockView = { kind: 'text', title: 'Text', Icon: TextLeft, View: TextView, useName };
