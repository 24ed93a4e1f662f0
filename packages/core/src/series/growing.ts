/**
 * Numbers that are only ever added to. Views of them stay valid: what stands is never moved or changed, but for a tail that
 * its owner declares unsettled. Room doubles when it runs out, so that adding costs the same however long the run is.
 */
export class Growing {
  private buffer: Float64Array;
  private used = 0;

  constructor(capacity = 1024) {
    this.buffer = new Float64Array(Math.max(capacity, 16));
  }

  static from(values: Float64Array): Growing {
    const growing = new Growing(0);
    growing.buffer = values;
    growing.used = values.length;
    return growing;
  }

  get length(): number {
    return this.used;
  }

  /** The numbers so far; a view, not a copy. */
  view(): Float64Array {
    return this.used === this.buffer.length ? this.buffer : this.buffer.subarray(0, this.used);
  }

  /** Room for `length` numbers, to be written before the length is extended over them. */
  room(length: number): Float64Array {
    if (length > this.buffer.length) {
      const larger = new Float64Array(Math.max(length, 2 * this.buffer.length));
      larger.set(this.buffer);
      this.buffer = larger;
    }
    return this.buffer;
  }

  /** Makes the length `length` (never shorter than before) and returns a view to write the new part into. */
  extend(length: number): Float64Array {
    this.room(length);
    this.used = Math.max(this.used, length);
    return this.view();
  }

  /** Adds one number. */
  add(value: number): void {
    this.room(this.used + 1)[this.used] = value;
    this.used++;
  }

  /** Forgets all numbers and keeps their room; only for an owner who has given no view of them away. */
  clear(): void {
    this.used = 0;
  }

  push(values: Float64Array): void {
    const at = this.used;
    this.extend(at + values.length).set(values, at);
  }
}
