import { type Editor } from '@tiptap/core';
import { create } from 'zustand';

interface Active {
  editor: Editor | null;
  /** The block that it is of. */
  block: string | null;
}

const none: Active = { editor: null, block: null };

/** The text in which the hand writes, for the tools over the notebook. */
export const useActiveEditor = create<Active>(() => none);

/** The hand writes in the text of a block. */
export const writeIn = (block: string, editor: Editor): void => useActiveEditor.setState({ editor, block });

/** The text of a block is there no more. */
export function leaveText(block: string): void {
  if (useActiveEditor.getState().block === block) useActiveEditor.setState(none);
}
