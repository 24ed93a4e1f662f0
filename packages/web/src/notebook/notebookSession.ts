import {
  type GuideAnswer,
  type Notebook,
  type PinContent,
  type ToScreen,
  notebookSchema,
  photographSchema,
  pinContentSchema,
} from '@heuristor/contracts';
import * as Y from 'yjs';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { getJson, postFile, request } from '../api/client';
import { newId } from '../investigation/ids';
import { type Part } from '../investigation/openedLater';
import { fromBase64 } from './base64';
import { type NewBlock, type SeenBlock, NotebookDocument } from './document/notebookDocument';
import { Step } from './document/step';
import { type FilmFrame } from './films/frame';
import { type NotebookHost } from './host';
import { type Mark, markPrefix } from './photographs/marks';
import { NotebookSteps } from './steps';
import { NotebookSync, fromServer, tabUnsent } from './sync';
import { NotebookValues } from './values';

interface NotebookState {
  /** In their order, also those that were removed. */
  blocks: readonly SeenBlock[];
  /** The block that was made last on this page, which takes the focus. */
  fresh: string | null;
}

/** Who pins something on another page; it is a step of that page. */
const pinned = Symbol('pinned');

const sameBlocks = (some: readonly SeenBlock[], others: readonly SeenBlock[]) =>
  some.length === others.length &&
  some.every(
    ({ id, kind, isRemoved }, i) =>
      id === others[i].id && kind === others[i].kind && isRemoved === others[i].isRemoved,
  );

/** The notebook of an investigation: its document, kept and shared with other screens, and the values that it quotes. */
export class NotebookSession implements Part {
  readonly document = new NotebookDocument();
  readonly state: StoreApi<NotebookState>;
  readonly values: NotebookValues;
  /** Whether it can be written in on this page. */
  readonly mayWrite: boolean;
  private readonly sync: NotebookSync;
  private readonly steps: NotebookSteps;
  private readonly pins = new Map<string, Promise<PinContent>>();

  static async open(host: NotebookHost): Promise<NotebookSession> {
    return new NotebookSession(host, await getJson(pathOf(host), notebookSchema));
  }

  private constructor(
    readonly host: NotebookHost,
    opened: Notebook,
  ) {
    const { document } = this;
    this.mayWrite = opened.mayWrite;
    if (opened.update !== null) Y.applyUpdate(document.doc, fromBase64(opened.update), fromServer);
    this.sync = new NotebookSync(document.doc, pathOf(host), opened, tabUnsent(host.id));
    this.steps = new NotebookSteps(document, host.history);
    this.values = new NotebookValues(host);
    this.state = createStore<NotebookState>(() => ({ blocks: document.order, fresh: null }));
    document.blocks.observeDeep((events) => {
      // What is typed within a block changes nothing about their order.
      if (!events.some(({ path }) => path.length <= 1)) return;
      const blocks = document.order;
      if (!sameBlocks(blocks, this.state.getState().blocks)) this.state.setState({ blocks });
    });
  }

  get saver() {
    return this.sync.saver;
  }

  hear(message: ToScreen): void {
    if (message.type === 'notebook' && message.investigation === this.host.id) this.sync.hear(message);
  }

  catchUp(): void {
    void this.sync.fetchLater();
  }

  keep(): void {
    this.sync.keep();
  }

  dispose(): void {
    this.sync.leave();
    this.steps.dispose();
    this.values.dispose();
  }

  /** Adds a block behind another one, or at the end. */
  add(block: NewBlock, called: string, after = this.last): string {
    const id = this.document.add(block, after, new Step(called));
    this.state.setState({ fresh: id });
    return id;
  }

  /** Adds blocks at the end, in one step. */
  addAll(blocks: readonly NewBlock[], called: string): void {
    this.document.doc.transact(() => {
      let { last } = this;
      for (const block of blocks) last = this.document.add(block, last, null);
    }, new Step(called));
  }

  /** The hand is in the block that was made last; who comes back later is not led there again. */
  taken(id: string): void {
    if (this.state.getState().fresh === id) this.state.setState({ fresh: null });
  }

  /** What is answered in words to a question of the guide. */
  answerText(question: string): Y.Text {
    const text = this.document.answerText(question);
    this.steps.include(text);
    return text;
  }

  /** Answers a question of the guide, or takes the answer back. */
  answer(question: string, answer: GuideAnswer | null): void {
    const { answers, doc } = this.document;
    doc.transact(() => {
      if (answer === null) answers.delete(question);
      else answers.set(question, answer);
    }, new Step('answer a question'));
  }

  /** Lays a mark on the photograph of a block, changes it, or takes it off (null). */
  mark(id: string, name: string, mark: Mark | null, called: string): void {
    this.document.set(id, `${markPrefix}${name}`, mark, new Step(called));
  }

  remove(id: string): void {
    this.document.mark(id, true, new Step('remove a block'));
  }

  putBack(id: string): void {
    this.document.mark(id, false, new Step('put a block back'));
  }

  /** Lays a block one place up or down among those that are there. */
  shift(id: string, by: -1 | 1): void {
    const present = this.state.getState().blocks.filter(({ isRemoved }) => !isRemoved);
    const at = present.findIndex((block) => block.id === id);
    const to = at + by;
    if (at < 0 || to < 0 || to >= present.length) return;
    this.document.move(id, by > 0 ? present[to].id : (present[to - 1]?.id ?? null));
  }

  /** Lays a block where another one is, which makes room for it. */
  moveTo(id: string, target: string): void {
    const present = this.state.getState().blocks.filter(({ isRemoved }) => !isRemoved);
    const [from, to] = [id, target].map((one) => present.findIndex((block) => block.id === one));
    if (from < 0 || to < 0 || from === to) return;
    this.document.move(id, to > from ? target : (present[to - 1]?.id ?? null));
  }

  /**
   * Keeps what is seen as a block at the end, as a step of the page on which it is seen.
   * @throws ApiError where the server does not take it
   */
  async pin(content: PinContent, title: string): Promise<string> {
    const id = newId();
    await request('POST', `${pathOf(this.host)}/pins`, { id, content });
    this.pins.set(id, Promise.resolve(content));
    const block = this.document.add(
      { kind: 'pin', fields: { pin: id }, lines: { title, caption: '' } },
      this.last,
      pinned,
    );
    this.host.history.push({
      name: 'pin what is seen',
      undo: () => this.document.mark(block, true, pinned),
      redo: () => this.document.mark(block, false, pinned),
    });
    return block;
  }

  /**
   * Lets a block show what is seen now, as a step of the page on which it is seen; what it showed before is kept for the way back.
   * @throws Error where the block is gone; ApiError where the server does not take it
   */
  async pinAnew(block: string, content: PinContent): Promise<string> {
    const before = this.document.block(block)?.get('pin');
    if (before === undefined) throw new Error('The block is not in the notebook any more.');
    const id = newId();
    await request('POST', `${pathOf(this.host)}/pins`, { id, content });
    this.pins.set(id, Promise.resolve(content));
    const show = (pin: unknown) => this.document.set(block, 'pin', pin, pinned);
    show(id);
    this.host.history.push({ name: 'pin anew', undo: () => show(before), redo: () => show(id) });
    return block;
  }

  /** Keeps a photograph as a block at the end. @throws ApiError where it cannot be read */
  async addPhotograph(file: Blob): Promise<string> {
    const id = newId();
    const answer = await postFile(`${pathOf(this.host)}/photographs/${id}`, file);
    const { width, height } = photographSchema.parse(answer);
    return this.add(
      { kind: 'photograph', fields: { photograph: id, width, height }, lines: { caption: '' } },
      'add a photograph',
    );
  }

  /** Keeps a film as a block at the end, with the frame that is printed. @throws ApiError where it cannot be read */
  async addFilm(file: Blob, frame: FilmFrame): Promise<string> {
    const id = newId();
    await postFile(`${pathOf(this.host)}/films/${id}`, file);
    const fields = { film: id, ...(await this.keptFrame(frame)) };
    return this.add({ kind: 'film', fields, lines: { caption: '' } }, 'add a film');
  }

  /** Another frame of a film is printed. @throws ApiError where it cannot be kept */
  async setFrame(block: string, frame: FilmFrame): Promise<void> {
    const fields = await this.keptFrame(frame);
    this.document.doc.transact(() => {
      for (const [name, value] of Object.entries(fields)) this.document.set(block, name, value, null);
    }, new Step('choose the frame that is printed'));
  }

  private async keptFrame({ jpeg, seconds }: FilmFrame) {
    const id = newId();
    const answer = await postFile(`${pathOf(this.host)}/photographs/${id}`, jpeg);
    const { width, height } = photographSchema.parse(answer);
    return { photograph: id, width, height, seconds };
  }

  /** Where a film is fetched. */
  addressOfFilm(id: string): string {
    return `/api${pathOf(this.host)}/films/${encodeURIComponent(id)}`;
  }

  /** Where a photograph is fetched. */
  addressOfPhotograph(id: string): string {
    return `/api${pathOf(this.host)}/photographs/${encodeURIComponent(id)}`;
  }

  /** What was pinned; it never changes. @throws ApiError */
  pinOf(id: string): Promise<PinContent> {
    const known = this.pins.get(id);
    if (known !== undefined) return known;
    const asked = getJson(`${pathOf(this.host)}/pins/${id}`, pinContentSchema);
    this.pins.set(id, asked);
    // Who asks next tries again.
    asked.catch(() => this.pins.delete(id));
    return asked;
  }

  /** The last block that is there. */
  private get last(): string | null {
    return this.state.getState().blocks.findLast(({ isRemoved }) => !isRemoved)?.id ?? null;
  }
}

const pathOf = ({ id }: Pick<NotebookHost, 'id'>) => `/investigations/${id}/notebook`;
