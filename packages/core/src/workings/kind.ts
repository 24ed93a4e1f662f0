import { type Pace } from '../pace/target';
import { type Series } from '../series/series';
import { type NamedResult, type Outcome } from './outcome';
import { type FieldValues, type Fields, type FormulaText } from './fields';
import { type ResultRef, type SeriesRef } from './references';
import { type Selection } from './selected';

/** How a reference is called in sentences: "x", "v", "t". */
export type NameOf = (reference: SeriesRef | ResultRef) => string;

export interface EntryBase {
  id: string;
  /** What people call this entry; a derived series is known by this symbol. */
  name: string;
  /** What somebody wrote beside it. */
  note?: string;
  /** Whether only its name and its main result are shown. */
  folded?: boolean;
  /** The units that somebody chose for its results, as UCUM codes by the keys of these. */
  shownIn?: Readonly<Record<string, string>>;
  /**
   * In which unit its numbers about a series are told, as UCUM codes by series: a level that was typed in m is that place in a run
   * in feet too. Where a series has none, they are numbers in the unit of each run.
   */
  toldIn?: Readonly<Record<string, string>>;
}

/** A region as other entries see it. */
export interface RegionBounds {
  along: SeriesRef;
  start: number;
  end: number;
}

/** What a name in a formula stands for in one run. */
export type Named = { kind: 'series'; reference: SeriesRef } | { kind: 'result'; result: NamedResult };

/** What a kind of entry may ask of the run and the other entries. */
export interface Context {
  /** Names the run in roots of uncertainty. */
  readonly runId: string;
  /** True while a hand drags something: what costs much and can wait is left out. */
  readonly moving: boolean;
  /** Selections that entries of this pass have made, so that those on one region share them. */
  readonly selections: Map<Series, Map<string, Selection>>;
  /** By how many steps of two the polynomials in all windows are raised, to tell what they flatten; 0 as the sheet says. */
  readonly raised: number;
  /** The line that this run was to follow; null where there was none. */
  readonly pace: Pace | null;
  /** What the same entry said last, about the same readings or fewer of them. */
  readonly before: Outcome | null;
  /** @throws Refusal where the run has no such channel, or the entry behind it is missing or refused */
  series(reference: SeriesRef, like?: Series): Series;
  /** @throws Refusal where the region was removed or has no length */
  region(id: string | null): RegionBounds | null;
  /** @throws Refusal where the entry behind it is missing, refused or has no such result */
  result(reference: ResultRef): NamedResult;
  /**
   * What a name in a formula means: what it was bound to, or what is called so on the sheet, in the run, or in its conditions.
   * @throws Refusal where nothing is
   */
  named(name: string, bound: FormulaText['names']): Named;
}

/** One way in which a kind is offered. */
export interface Offer {
  /** Word in menus and beside a selection. */
  title: string;
  /** Values of fields that this offer sets. */
  preset: Readonly<Record<string, unknown>>;
}

/**
 * A kind of entry describes itself. Adding one: a file with such an object, and its line in the registry; stored documents,
 * editor, menus, names and exports follow.
 */
export interface EntryKind<K extends string = string, F extends Fields = Fields> {
  kind: K;
  /** The word for such an entry. */
  title: string;
  fields: F;
  yields: 'region' | 'series' | 'results';
  /** What it draws: a graph over axes of its own, which a page can show as a trace, or a curve over the series that it is of. */
  draws?: 'graph' | 'curve';
  /** What it makes of readings by a window of its own, to tell a result from it. @throws Refusal */
  ownSeries?(entry: EntryBase & FieldValues<F>, context: Context): Series;
  /** By which share of its region's length it looks beyond either end of it. */
  beyond?: number;
  /** Whether what it notes is what it is for, as the verdict of a comparison. */
  concludes?: true;
  /** Whether its series is drawn over the one that it is of, to be seen beside it. */
  drawnOver?: true;
  /**
   * Where it is offered: beside a selected region, in the menu of every series, or in the menu of the sheet. A kind that is
   * offered nowhere is made in a way of its own, as a region is by dragging.
   */
  offered: 'region' | 'series' | 'sheet' | 'nowhere';
  offers: readonly Offer[];
  /** The symbol that a new entry gets by custom, e.g. v for the derivative of x. */
  customaryName?(of: string): string;
  /** Fields that mean nothing for this entry, and are not asked for. */
  idle?(entry: EntryBase & FieldValues<F>): readonly string[];
  /** The entry as a sentence, without the letter of its region: "sine through x". */
  sentence(entry: EntryBase & FieldValues<F>, nameOf: NameOf): string;
  /** @throws Refusal */
  evaluate(entry: EntryBase & FieldValues<F>, context: Context): Outcome;
}

/** Declares a kind, its fields' types following from their declaration. */
export const defineKind = <const K extends string, const F extends Fields>(
  kind: EntryKind<K, F>,
): EntryKind<K, F> => kind;
