import {
  type Notebook,
  type ToScreen,
  mostUpdateBytes,
  notebookSchema,
  storedUpdateSchema,
} from '@heuristor/contracts';
import * as Y from 'yjs';
import { askAgainMilliseconds, mayAnswerLater } from '../api/askAgain';
import { ApiError, getJson, request, sentenceOf } from '../api/client';
import { Saver, type Sent } from '../investigation/saver';
import { fromBase64, toBase64 } from './base64';

/** Who has changed the document where that came from the server. */
export const fromServer = Symbol('from the server');

/** What the server says of an update that it will not take the next time either. */
const refusing: ReadonlySet<string> = new Set(['invalid-request', 'too-large', 'not-found', 'not-allowed']);
/** A browser sends no more than 64 kB while a page goes away. */
const mostAtLast = 60_000;

/** Keeps what is not stored yet for the case that the page is loaded anew. */
export interface UnsentMemory {
  load(): string | null;
  save(update: string | null): void;
}

export const tabUnsent = (investigation: string): UnsentMemory => {
  const key = `notebook of ${investigation}`;
  return {
    load: () => sessionStorage.getItem(key),
    save(update) {
      try {
        if (update === null) sessionStorage.removeItem(key);
        else sessionStorage.setItem(key, update);
      } catch {
        // More than the browser keeps; it is sent as long as the page is open.
      }
    },
  };
};

/** What stands for “not stored as it is”: what is to be sent is asked for when it is sent. */
type Version = object;

/** Brings what is written here to the server, and what is written elsewhere here. */
export class NotebookSync {
  readonly saver: Saver<Version>;
  /** Updates that are not stored, the oldest first. */
  private unsent: Uint8Array[] = [];
  private at: number;
  /** How far the server is, as far as that was heard. */
  private heard: number;
  private fetching = false;
  private again: ReturnType<typeof setTimeout> | undefined;
  private isOver = false;

  /** @param opened the notebook as the server had it, which is in the document already */
  constructor(
    private readonly doc: Y.Doc,
    private readonly path: string,
    private readonly opened: Pick<Notebook, 'at' | 'owner'>,
    private readonly memory: UnsentMemory,
  ) {
    this.at = opened.at;
    this.heard = opened.at;
    this.saver = new Saver<Version>(
      {},
      opened.at,
      () => this.send(),
      () => undefined,
    );
    doc.on('update', (update: Uint8Array, origin: unknown) => {
      if (origin === fromServer) return;
      this.unsent.push(update);
      // The pause begins with the first key, and not anew with each: who types fast for long is stored meanwhile.
      if (this.saver.state.getState().phase !== 'dirty') this.saver.tell({ kind: 'edited', document: {} });
    });
    this.takeUpUnsent();
  }

  /** The live stream says something. */
  hear(message: ToScreen): void {
    if (message.type !== 'notebook' || message.owner !== this.opened.owner || message.at <= this.at) return;
    this.heard = Math.max(this.heard, message.at);
    if (message.update !== null && message.at === this.at + 1) {
      this.apply(message.update);
      this.at = message.at;
    } else void this.fetchLater();
  }

  /** Fetches what was written since, until all is here that was heard of; a server that is away is asked again. */
  async fetchLater(): Promise<void> {
    if (this.fetching || this.isOver) return;
    this.fetching = true;
    clearTimeout(this.again);
    try {
      do {
        const { at, update } = await getJson(`${this.path}?after=${this.at}`, notebookSchema);
        if (update !== null) this.apply(update);
        this.at = Math.max(this.at, at);
        // What is said while an answer is on its way may be newer than the answer.
      } while (this.at < this.heard && !this.isOver);
    } catch (error) {
      if (mayAnswerLater(error)) this.again = setTimeout(() => void this.fetchLater(), askAgainMilliseconds);
    } finally {
      this.fetching = false;
    }
  }

  /** The page may go away in this very moment. */
  keep(): void {
    if (this.unsent.length === 0) {
      this.memory.save(null);
      return;
    }
    const update = toBase64(Y.mergeUpdates(this.unsent));
    this.memory.save(update);
    if (update.length < mostAtLast)
      fetch(`/api${this.path}/updates`, {
        method: 'POST',
        keepalive: true,
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ update }),
        // What does not arrive is taken up when the page is loaded anew.
      }).catch(() => undefined);
  }

  /** Stores what is not stored yet, and goes on trying until it is. */
  leave(): void {
    this.isOver = true;
    clearTimeout(this.again);
    this.saver.leave();
  }

  private takeUpUnsent(): void {
    const kept = this.memory.load();
    if (kept === null) return;
    try {
      Y.applyUpdate(this.doc, fromBase64(kept));
    } catch {
      // It cannot be read; what the server has is there.
      this.memory.save(null);
    }
  }

  private apply(update: string): void {
    Y.applyUpdate(this.doc, fromBase64(update), fromServer);
  }

  private async send(): Promise<Sent<Version>> {
    const count = this.fitting();
    const update = Y.mergeUpdates(this.unsent.slice(0, count));
    try {
      const answer = await request('POST', `${this.path}/updates`, { update: toBase64(update) });
      const { at } = storedUpdateSchema.parse(answer);
      this.unsent.splice(0, count);
      if (this.unsent.length === 0) this.memory.save(null);
      // What is left goes next.
      else if (this.saver.state.getState().phase === 'sending')
        this.saver.tell({ kind: 'edited', document: {} });
      if (at === this.at + 1) this.at = at;
      else if (at > this.at) {
        this.heard = Math.max(this.heard, at);
        void this.fetchLater();
      }
      return { kind: 'stored', version: at };
    } catch (error) {
      const isFinal = error instanceof ApiError && refusing.has(error.code);
      return { kind: isFinal ? 'refused' : 'failed', sentence: sentenceOf(error) };
    }
  }

  /** How many of the oldest fit into one request; one at least. */
  private fitting(): number {
    let bytes = 0;
    const past = this.unsent.findIndex(({ length }) => (bytes += length) > mostUpdateBytes);
    return past < 0 ? this.unsent.length : Math.max(past, 1);
  }
}
