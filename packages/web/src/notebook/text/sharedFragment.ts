import { Extension } from '@tiptap/core';
import { ySyncPlugin } from '@tiptap/y-tiptap';
import type * as Y from 'yjs';
import { type History } from '../../investigation/history';

interface Options {
  fragment: Y.XmlFragment | null;
  history: Pick<History, 'undo' | 'redo'> | null;
}

/** The text of an editor is a part of a shared document; steps back are those of the page, over all of its blocks. */
export const SharedFragment = Extension.create<Options>({
  name: 'sharedFragment',
  priority: 1000,
  addOptions: () => ({ fragment: null, history: null }),
  addKeyboardShortcuts() {
    const { history } = this.options;
    const taken = (step: (() => void) | undefined) => () => {
      step?.();
      return true;
    };
    const undo = taken(() => history?.undo());
    const redo = taken(() => history?.redo());
    return { 'Mod-z': undo, 'Mod-y': redo, 'Shift-Mod-z': redo };
  },
  addProseMirrorPlugins() {
    const { fragment } = this.options;
    return fragment === null ? [] : [ySyncPlugin(fragment)];
  },
});
