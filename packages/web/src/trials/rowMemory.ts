/** Rows as they were laid out last: those of which nothing has changed stay the same ones, of ten thousand all but the one that is typed in. */
export class RowMemory<R extends { leftOut: string | null }> {
  private context: readonly unknown[] = [];
  private units = '';
  private made = new WeakMap<object, Map<number | null, R>>();
  private shown = new WeakMap<R, R>();

  /** @param context all that rows depend on beside what each is of and whether it is left out */
  begin(context: readonly unknown[]): void {
    const { context: before } = this;
    this.context = context;
    if (before.length === context.length && before.every((part, i) => part === context[i])) return;
    this.made = new WeakMap();
  }

  /** @param of what the row is of, and which of its values; another object where that has changed */
  row(of: object, place: number | null, leftOut: string | null, make: () => R): R {
    let own = this.made.get(of);
    if (own === undefined) this.made.set(of, (own = new Map()));
    let row = own.get(place);
    if (row?.leftOut !== leftOut) own.set(place, (row = make()));
    return row as R;
  }

  /** A row with its numbers in the units of the columns. @param units of all of them */
  inUnits(units: string, row: R, make: () => R): R {
    if (units !== this.units) this.shown = new WeakMap();
    this.units = units;
    let found = this.shown.get(row);
    if (found === undefined) this.shown.set(row, (found = make()));
    return found;
  }
}
