import { generateKeyBetween } from 'fractional-indexing';
import * as Y from 'yjs';
import { z } from 'zod';
import { newId } from '../../investigation/ids';
import { Step } from './step';

export const blockKinds = ['text', 'pin', 'results', 'trials', 'photograph', 'film', 'answers'] as const;
export type BlockKind = (typeof blockKinds)[number];

/** What is said of a notebook as a whole; it stands on every printed page. */
export const headingFields = ['title', 'group', 'names', 'class', 'date'] as const;
export type HeadingField = (typeof headingFields)[number];

/** A block as it stands in the order, without what is in it. */
export interface SeenBlock {
  id: string;
  /** Null where a newer version has made it. */
  kind: BlockKind | null;
  isRemoved: boolean;
}

/** What a block is made with, beside its place. */
export interface NewBlock {
  kind: BlockKind;
  fields?: Readonly<Record<string, string | number | boolean | readonly string[]>>;
  /** Its texts of one line, by their names. */
  lines?: Readonly<Record<string, string>>;
  /** Its rich text. */
  text?: readonly (Y.XmlElement | Y.XmlText)[];
}

const storedBlock = z.object({
  kind: z.enum(blockKinds).nullable().catch(null),
  place: z.string().catch(''),
  removed: z.boolean().catch(false),
});

type Block = Y.Map<unknown>;

/**
 * A notebook as a document of Yjs. Each block has an id of its own and a place, a text that sorts among those of the others, so that
 * two people who move or add blocks at once lose none; what was removed is marked and stays.
 */
export class NotebookDocument {
  readonly doc = new Y.Doc();
  readonly blocks = this.doc.getMap<Block>('blocks');
  /** What was answered to questions of the guide, by their ids; free words have texts of their own. */
  readonly answers = this.doc.getMap<unknown>('answers');
  /** Checks of the guide that were met by something that has passed, by their ids. */
  readonly ticks = this.doc.getMap<boolean>('ticks');

  heading(field: HeadingField): Y.Text {
    return this.doc.getText(`heading ${field}`);
  }

  /** What was answered in words to a question of the guide. */
  answerText(question: string): Y.Text {
    return this.doc.getText(`answer ${question}`);
  }

  /** All of what can be undone together; an answer in words comes to it when it is first looked at. */
  get parts(): Y.AbstractType<unknown>[] {
    return [
      this.blocks,
      this.answers,
      ...headingFields.map((field) => this.heading(field)),
    ] as Y.AbstractType<unknown>[];
  }

  /** Every block in its order, also those that were removed. */
  get order(): SeenBlock[] {
    return this.placed().map(({ id, kind, removed }) => ({ id, kind, isRemoved: removed }));
  }

  block(id: string): Block | undefined {
    return this.blocks.get(id);
  }

  /** The rich text of a block. */
  textOf(id: string): Y.XmlFragment | null {
    const text = this.block(id)?.get('text');
    return text instanceof Y.XmlFragment ? text : null;
  }

  /** A text of one line in a block; null where it has none of this name. */
  lineOf(id: string, name: string): Y.Text | null {
    const line = this.block(id)?.get(name);
    return line instanceof Y.Text ? line : null;
  }

  /** @param after the block behind which it stands; null for the beginning */
  add({ kind, fields = {}, lines = {}, text }: NewBlock, after: string | null, origin: unknown): string {
    const id = newId();
    this.doc.transact(() => {
      const block: Block = new Y.Map();
      this.blocks.set(id, block);
      block.set('kind', kind);
      block.set('place', this.placeAfter(after, id));
      for (const [name, value] of Object.entries(fields)) block.set(name, value);
      for (const [name, value] of Object.entries(lines)) block.set(name, new Y.Text(value));
      if (kind === 'text') {
        const fragment = new Y.XmlFragment();
        block.set('text', fragment);
        fragment.insert(0, [...(text ?? [new Y.XmlElement('paragraph')])]);
      }
    }, origin);
    return id;
  }

  /** Lays a block behind another one; null for the beginning. */
  move(id: string, after: string | null): void {
    if (id === after) return;
    this.set(id, 'place', this.placeAfter(after, id), new Step('move a block'));
  }

  /** Takes a block out, or puts it back. */
  mark(id: string, removed: boolean, origin: unknown): void {
    this.set(id, 'removed', removed, origin);
  }

  set(id: string, name: string, value: unknown, origin: unknown): void {
    const block = this.block(id);
    if (block === undefined || block.get(name) === value) return;
    this.doc.transact(() => block.set(name, value), origin);
  }

  private placed() {
    const all = [...this.blocks.entries()].flatMap(([id, block]) =>
      block instanceof Y.Map
        ? [
            {
              id,
              ...storedBlock.parse({
                kind: block.get('kind'),
                place: block.get('place'),
                removed: block.get('removed'),
              }),
            },
          ]
        : [],
    );
    const before = (one: string, other: string) => (one < other ? -1 : one > other ? 1 : 0);
    // Two that were laid at the same place at once stand there in the order of their ids, everywhere.
    return all.sort((one, other) => before(one.place, other.place) || before(one.id, other.id));
  }

  private placeAfter(after: string | null, moved: string): string {
    const others = this.placed().filter(({ id }) => id !== moved);
    const at = after === null ? -1 : others.findIndex(({ id }) => id === after);
    const place = at < 0 ? null : others[at].place;
    const next = others.slice(at + 1).find((other) => place === null || other.place > place)?.place ?? null;
    try {
      return generateKeyBetween(place, next);
    } catch {
      // A place that nobody here has made; it still sorts before what is longer.
      return `${place ?? ''}V`;
    }
  }
}
