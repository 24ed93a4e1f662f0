import { EditorContent, useEditor } from '@tiptap/react';
import { useCallback, useEffect, useMemo, useSyncExternalStore } from 'react';
import * as Y from 'yjs';
import { useInvestigation } from '../../investigation/context';
import { useNotebook, useNotebookState } from '../context';
import { leaveText, writeIn } from '../text/activeEditor';
import { cleanPasted } from '../text/pasted';
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
        attributes: { class: 'rich-text', 'aria-label': 'Text', role: 'textbox', 'aria-multiline': 'true' },
      },
      onFocus: ({ editor: focused }) => writeIn(id, focused),
    },
    [fragment, history],
  );
  useEffect(() => {
    if (isFresh) editor.commands.focus('end');
  }, [editor, isFresh]);
  useEffect(() => () => leaveText(id), [id, editor]);
  return <EditorContent editor={editor} className="text-block" />;
}

/** The first words of a text. */
export function firstWords(fragment: Y.XmlFragment | null): string {
  const words: string[] = [];
  const read = (parent: Y.XmlFragment) => {
    for (const node of parent.toArray()) {
      if (words.join(' ').length > 40) return;
      if (node instanceof Y.XmlText)
        words.push(
          (node.toDelta() as { insert: unknown }[])
            .map(({ insert }) => (typeof insert === 'string' ? insert : ''))
            .join(''),
        );
      else if (node instanceof Y.XmlElement) {
        if (node.nodeName === 'quote') words.push(String(node.getAttribute('then')));
        read(node);
      }
    }
  };
  if (fragment !== null) read(fragment);
  return words.join(' ').replaceAll(/\s+/g, ' ').trim().slice(0, 60);
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

export const textBlock: BlockView = { kind: 'text', title: 'Text', View: TextView, useName };
