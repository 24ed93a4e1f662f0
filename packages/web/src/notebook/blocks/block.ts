import { type ComponentType } from 'react';
import { type Icon } from 'react-bootstrap-icons';
import { type BlockKind } from '../document/notebookDocument';

export interface BlockProps {
  id: string;
}

/** A kind of block, as pages show it. Adding one: its file, its line in the registry, and its name in the document. */
export interface BlockView {
  kind: BlockKind;
  title: string;
  Icon: Icon;
  View: ComponentType<BlockProps>;
  /** What it is called in the list of blocks; it follows what is in it. */
  useName(id: string): string;
}
