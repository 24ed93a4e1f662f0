import { Growing } from '../series/growing';
import { type NumberSink, type NumberStore, type Numbers } from './numbers';

/** A column while it is read: what is new stands in memory until it is written away. */
export class ColumnWriter {
  /** What is not written away yet. */
  readonly tail = new Growing();
  private readonly sink: NumberSink;
  private written = 0;
  private hasSome = false;

  constructor(store: NumberStore) {
    this.sink = store();
  }

  put(value: number): void {
    this.tail.add(value);
  }

  get length(): number {
    return this.written + this.tail.length;
  }

  /** Whether nothing but missing readings has stood in it so far. */
  get isEmpty(): boolean {
    return !this.hasSome && this.tail.view().every(Number.isNaN);
  }

  /** Writes away what is new. */
  flush(): void {
    if (this.tail.length === 0) return;
    const values = this.tail.view();
    this.hasSome ||= !values.every(Number.isNaN);
    this.sink.append(values);
    this.written += values.length;
    // Whoever takes them has a copy of his own.
    this.tail.clear();
  }

  /** The whole column. */
  numbers(): Numbers {
    this.flush();
    return this.sink.numbers();
  }
}
