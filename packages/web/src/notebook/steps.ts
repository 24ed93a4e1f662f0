import * as Y from 'yjs';
import { ySyncPluginKey } from '@tiptap/y-tiptap';
import { type History } from '../investigation/history';
import { Step, typing } from './document/step';
import { type NotebookDocument } from './document/notebookDocument';

/** Letters typed within so long are one step. */
const stepMilliseconds = 500;

/**
 * What is done in a notebook as steps of its page that can be taken back, beside what others have written since. Yjs knows how; the
 * history of the page knows in which order.
 */
export class NotebookSteps {
  private readonly manager: Y.UndoManager;

  constructor(document: NotebookDocument, history: History) {
    this.manager = new Y.UndoManager(document.parts, {
      doc: document.doc,
      captureTimeout: stepMilliseconds,
      trackedOrigins: new Set([Step, ySyncPluginKey]),
    });
    // What has a name of its own is a step of its own.
    const apart = ({ origin }: Y.Transaction) => {
      if (origin instanceof Step && origin !== typing) this.manager.stopCapturing();
    };
    document.doc.on('beforeTransaction', apart);
    document.doc.on('afterTransaction', apart);
    this.manager.on('stack-item-added', ({ type, origin }: { type: 'undo' | 'redo'; origin: unknown }) => {
      if (type !== 'undo' || origin === this.manager) return;
      history.push({
        name: origin instanceof Step ? origin.name : typing.name,
        undo: () => this.manager.undo(),
        redo: () => this.manager.redo(),
      });
    });
  }

  /** What is written there is a step too. */
  include(text: Y.Text): void {
    this.manager.addToScope(text);
  }

  dispose(): void {
    this.manager.destroy();
  }
}
