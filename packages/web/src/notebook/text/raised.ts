import { Mark } from '@tiptap/core';

const markOf = (name: 'subscript' | 'superscript', tag: 'sub' | 'sup', key: string) =>
  Mark.create({
    name,
    excludes: name === 'subscript' ? 'superscript' : 'subscript',
    parseHTML: () => [{ tag }],
    renderHTML: () => [tag, 0],
    addKeyboardShortcuts() {
      return { [key]: () => this.editor.commands.toggleMark(name) };
    },
  });

export const Subscript = markOf('subscript', 'sub', 'Mod-,');
export const Superscript = markOf('superscript', 'sup', 'Mod-.');
