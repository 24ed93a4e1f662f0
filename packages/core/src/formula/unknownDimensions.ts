import { type Dimension, addDimensions, plain, scaleDimension } from './dimension';

/** A dimension that hangs on those of names whose unit is not known yet: known + Σ coefficient · dimension of name. */
export interface Affine {
  known: Dimension;
  /** Coefficients by name. */
  of: Dimension;
}

export const affine = (known: Dimension): Affine => ({ known, of: plain });

export const unknown = (name: string): Affine => ({ known: plain, of: new Map([[name, 1]]) });

export const added = (a: Affine, b: Affine, factor = 1): Affine => ({
  known: addDimensions(a.known, b.known, factor),
  of: addDimensions(a.of, b.of, factor),
});

export const scaled = (a: Affine, factor: number): Affine => ({
  known: scaleDimension(a.known, factor),
  of: scaleDimension(a.of, factor),
});

/** Tells unknown dimensions from the demands of a formula, by elimination, as linear equations are solved. */
export class DimensionSolver {
  /** What a name is, in terms of names that are still open. */
  private readonly solved = new Map<string, Affine>();

  /** A dimension with all that is known put in. */
  private reduced(dimension: Affine): Affine {
    let out: Affine = { known: dimension.known, of: plain };
    for (const [name, coefficient] of dimension.of)
      out = added(out, this.solved.get(name) ?? unknown(name), coefficient);
    return out;
  }

  /** Demands that a dimension be that of plain numbers. @returns whether that is possible */
  demand(dimension: Affine): boolean {
    const rest = this.reduced(dimension);
    const [open] = rest.of;
    if (open === undefined) return rest.known.size === 0;
    const [name, coefficient] = open;
    const others = new Map(rest.of);
    others.delete(name);
    const solution = scaled({ known: rest.known, of: others }, -1 / coefficient);
    this.solved.set(name, solution);
    for (const [key, value] of this.solved) this.solved.set(key, this.reduced(value));
    return true;
  }

  /** A dimension where it is known in full; null where it is still open. */
  settled(dimension: Affine): Dimension | null {
    const { known, of } = this.reduced(dimension);
    return of.size === 0 ? known : null;
  }
}
