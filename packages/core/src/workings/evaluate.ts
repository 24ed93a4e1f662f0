import { type FitPoints } from '../fitting/relation';
import { FormulaFault } from '../formula/fault';
import { sameName } from '../formula/names';
import { Refusal } from '../refusal';
import { exactly } from '../results/quantity';
import { type Series } from '../series/series';
import { type Unit } from '../units/unit';
import { type Entry, type Workings, kindOf } from './entries';
import { inputsOf } from './inputs';
import { type Context, type Named } from './kind';
import { type NamedResult, type Outcome, noted } from './outcome';
import { type ResultRef, type SeriesRef, entryRef, nameIn, partsOfResultRef } from './references';
import { type RunData } from './run';
import { RunSeries } from './runSeries';
import { refuseName } from './refuseName';
import { select } from './selection';
import { inUnitsOfRun } from './givenUnits';
import { unflattened } from './unflattened';

/** What the workings say about one run: an outcome for every entry, by its id. */
export interface Evaluation {
  runId: string;
  outcomes: Map<string, Outcome>;
}

export interface EvaluateOptions {
  /** True while a hand drags something: fits start from their last solution, and what can wait is left out. */
  moving?: boolean;
  /** Entries to be worked out, by their ids, with what they speak of; all of them where there is none. */
  only?: ReadonlySet<string>;
}

/** One way through a sheet. */
interface Pass {
  context: Omit<Context, 'before'>;
  outcomeOf: (entry: Entry) => Outcome;
}

interface Remembered {
  text: string;
  inputs: unknown[];
  outcome: Outcome;
  /** Whether it was worked out in passing, so that it has to be confirmed at rest. */
  moving: boolean;
  /** How often degrees were raised for it, at rest. */
  raised: number;
}

/**
 * Evaluates workings over one run again and again, as people change them and as readings come. Says the same as `evaluate`,
 * which is a pure function of workings and run; it only remembers, for every entry, the inputs it was last worked out from.
 */
export class Evaluator extends RunSeries {
  /** What entries said last, as the sheet says, and through windows of higher degrees. */
  private readonly remembered: Map<string, Remembered>[] = [];

  evaluate(workings: Workings, options: EvaluateOptions = {}): Evaluation {
    this.arrange(workings);
    const { entries } = workings;
    const { outcomeOf } = this.pass(entries, options);
    const { only } = options;
    const wanted = only === undefined ? entries : entries.filter(({ id }) => only.has(id));
    const outcomes = new Map(wanted.map((entry) => [entry.id, outcomeOf(entry)]));
    const ids = new Set(entries.map(({ id }) => id));
    for (const level of this.remembered) for (const id of level.keys()) if (!ids.has(id)) level.delete(id);
    return { runId: this.run.id, outcomes };
  }

  /** The series behind a reference. @throws Refusal */
  series(workings: Workings, reference: SeriesRef): Series {
    this.arrange(workings);
    const { entries } = workings;
    return this.pass(entries, { moving: true }).context.series(reference);
  }

  /** The readings of a series in a region, against another one. @throws Refusal */
  points(
    workings: Workings,
    { of, against, region }: { of: SeriesRef; against: SeriesRef; region: string | null },
  ): FitPoints & { units: { x: Unit; y: Unit } } {
    this.arrange(workings);
    const { context } = this.pass(workings.entries, { moving: true });
    const asking = { ...context, before: null };
    const series = context.series(of);
    const units = { x: context.series(against, series).unit, y: series.unit };
    return { ...select(asking, series, against, context.region(region)), units };
  }

  /** What an entry may ask of this run and of a sheet. */
  asking(workings: Workings): Context {
    this.arrange(workings);
    return { ...this.pass(workings.entries, {}).context, before: null };
  }

  /** The memory of entries through degrees raised so many times. */
  private rememberedAt = (raised: number) => (this.remembered[raised] ??= new Map<string, Remembered>());

  private pass(entries: readonly Entry[], options: EvaluateOptions) {
    const passes: Pass[] = [];
    const at = (raised: number): Pass =>
      (passes[raised] ??= this.passThrough(entries, options.moving ?? false, raised, at));
    return at(0);
  }

  /** One way through the sheet, with the polynomials in all windows raised so many times. */
  private passThrough(
    entries: readonly Entry[],
    moving: boolean,
    raised: number,
    at: (raised: number) => Pass,
  ): Pass {
    const byId = new Map(entries.map((entry) => [entry.id, entry]));
    const done = new Map<string, Outcome>();
    const open = new Set<string>();

    const outcomeOf = (entry: Entry): Outcome => {
      const known = done.get(entry.id);
      if (known !== undefined) return known;
      if (open.has(entry.id))
        throw new Refusal(`“${entry.name}” is worked out from itself. Let it use something else.`);
      open.add(entry.id);
      const outcome = this.outcomeOf(entry, context, at);
      open.delete(entry.id);
      done.set(entry.id, outcome);
      return outcome;
    };
    /** What an entry that another one speaks of says. @throws Refusal */
    const usedEntry = (id: string, missing: string): { entry: Entry; outcome: Outcome } => {
      const entry = byId.get(id);
      if (entry === undefined) throw new Refusal(missing);
      const outcome = outcomeOf(entry);
      if (outcome.kind === 'refused') throw new Refusal(outcome.sentence, outcome.lacks ?? null);
      return { entry, outcome };
    };

    const context: Omit<Context, 'before'> = {
      runId: this.run.id,
      pace: this.run.pace ?? null,
      moving,
      raised,
      selections: new Map(),
      series: (reference, like) => {
        if (reference === 't') return this.abscissa(like ?? this.anyChannel());
        const name = nameIn(reference);
        if (reference.startsWith('channel:')) {
          return this.channel(name);
        }
        const { entry, outcome } = usedEntry(
          name,
          'The series that this entry uses was removed. Undo, or choose another series.',
        );
        if (outcome.kind !== 'series') throw new Refusal(`“${entry.name}” is not a series.`);
        return outcome.series;
      },
      region: (id) => {
        if (id === null) return null;
        const { entry, outcome } = usedEntry(
          id,
          'The region of this entry was removed. Undo, or choose another region.',
        );
        if (entry.kind !== 'region' || outcome.kind !== 'region')
          throw new Refusal('This entry’s region is none. Choose another region.');
        return { along: entry.along, start: outcome.start, end: outcome.end };
      },
      result: (reference) => resultIn(reference, usedEntry),
      named: (name, bound) => {
        const reference = Object.hasOwn(bound, name) ? bound[name] : undefined;
        if (reference !== undefined)
          return reference.startsWith('result:')
            ? { kind: 'result', result: context.result(reference as ResultRef) }
            : { kind: 'series', reference: reference as SeriesRef };
        return (
          this.calledOnSheet(name, entries, usedEntry) ??
          this.calledInRun(name) ??
          refuseName(name, entries, this.symbols())
        );
      },
    };
    return { context, outcomeOf };
  }

  /** What an entry of that name gives: its series, or its main result; a result may be called “mean of run” too. */
  private calledOnSheet(
    name: string,
    entries: readonly Entry[],
    usedEntry: (id: string, missing: string) => { entry: Entry; outcome: Outcome },
  ): Named | null {
    const wanted = sameName(name);
    for (const entry of entries) {
      if (entry.name === '' || !(wanted === sameName(entry.name) || name.endsWith(` of ${entry.name}`)))
        continue;
      const { yields } = kindOf(entry.kind);
      if (yields === 'region') continue;
      const isWhole = wanted === sameName(entry.name);
      if (yields === 'series') {
        if (isWhole) return { kind: 'series', reference: entryRef(entry.id) };
        continue;
      }
      const { outcome } = usedEntry(entry.id, '');
      if (outcome.kind !== 'results') continue;
      const result = outcome.results.find((one) =>
        isWhole ? one.main : `${one.name} of ${entry.name}` === name,
      );
      if (result !== undefined) return { kind: 'result', result };
    }
    return null;
  }

  private outcomeOf(
    entry: Entry,
    shared: Omit<Context, 'before'>,
    through: (raised: number) => Pass,
  ): Outcome {
    try {
      const { moving } = shared;
      const remembered = this.rememberedAt(shared.raised);
      const text = textOf(entry);
      const found = inputsOf(entry, shared);
      const { inputs, lineages } = found;
      const known = remembered.get(entry.id);
      if (
        known !== undefined &&
        known.text === text &&
        (!known.moving || moving) &&
        same(known.inputs, inputs)
      )
        return known.outcome;
      const isOfSame = known?.text === text && same(known.inputs.slice(0, lineages.length), lineages);
      // A series goes on from its last state only while nothing but its readings has changed.
      const goesOn = kindOf(entry.kind).yields !== 'series' || isOfSame;
      const context: Context = { ...shared, before: known !== undefined && goesOn ? known.outcome : null };
      const earlier = known?.text === text ? known.raised : 0;
      const made = this.unflattenedOutcome(entry, context, found, earlier, through);
      const outcome = isOfSame ? withNotesAtRest(made.outcome, known.outcome) : made.outcome;
      remembered.set(entry.id, { text, inputs, outcome, moving, raised: made.raised });
      return outcome;
    } catch (error) {
      if (!(error instanceof Refusal)) return faultOutcome(error);
      const { message, lacks } = error;
      return error instanceof FormulaFault
        ? { kind: 'refused', sentence: message, at: { from: error.from, to: error.to } }
        : { kind: 'refused', sentence: message, ...(lacks === null ? {} : { lacks }) };
    }
  }

  /** What an entry says, without what windows take off it; while a hand moves, as it was at rest. */
  private unflattenedOutcome(
    entry: Entry,
    context: Context,
    { series: usedSeries, region }: ReturnType<typeof inputsOf>,
    earlier: number,
    through: (raised: number) => Pass,
  ): { outcome: Outcome; raised: number } {
    const isWindowed =
      context.raised === 0 &&
      (kindOf(entry.kind).ownSeries !== undefined || usedSeries.some(({ made }) => made.length > 0));
    if (isWindowed && context.moving && earlier > 0) {
      const outcome = through(earlier).outcomeOf(entry);
      if (outcome.kind === 'results')
        return { outcome: untoldAsBefore(outcome, context.before), raised: earlier };
    }
    const asked = inUnitsOfRun(entry, context);
    const asSheet = kindOf(entry.kind).evaluate(asked, context);
    if (!isWindowed || asSheet.kind !== 'results') return { outcome: asSheet, raised: 0 };
    if (context.moving) return { outcome: untoldAsBefore(asSheet, context.before), raised: earlier };
    const own = kindOf(entry.kind).ownSeries?.(asked, context);
    const series = own === undefined ? usedSeries : [own];
    const about = { series, region, runId: context.runId };
    const { outcome, raised, says } = unflattened(asSheet, about, (times) => {
      const pass = through(times);
      const made = pass.outcomeOf(entry);
      return { outcome: made, series: made.kind === 'results' ? inputsOf(entry, pass.context).series : [] };
    });
    // What its own kind tells at rest stands among its notes already.
    return {
      outcome: {
        ...outcome,
        notes: [...outcome.notes, ...says],
        atRest: [...(outcome.atRest ?? []), ...says],
      },
      raised,
    };
  }
}

/** A fault of the program in one entry never takes more than that entry with it. */
export const faultOutcome = (error: unknown): Outcome => ({
  kind: 'refused',
  isFault: true,
  sentence: `Heuristor has an error of its own in this entry (${error instanceof Error ? error.message : String(error)}). Everything else still works. Change the entry, or undo.`,
});

type Results = Extract<Outcome, { kind: 'results' }>;

/** While a hand moves, what had no ± at rest, since nobody can tell what its windows take off, has none. */
function untoldAsBefore(outcome: Results, before: Outcome | null): Results {
  const had = new Map(
    before?.kind === 'results' ? before.results.map(({ key, quantity }) => [key, quantity]) : [],
  );
  return {
    ...outcome,
    atRest: null,
    results: outcome.results.map((result) =>
      had.get(result.key)?.standardUncertainty === null
        ? { ...result, quantity: exactly(result.quantity.value, result.quantity.unit) }
        : result,
    ),
  };
}

function resultIn(
  reference: ResultRef,
  usedEntry: (id: string, missing: string) => { entry: Entry; outcome: Outcome },
): NamedResult {
  const { id, key } = partsOfResultRef(reference);
  const { entry, outcome } = usedEntry(
    id,
    'The result that this entry uses was removed. Undo, or choose another.',
  );
  const found = outcome.kind === 'results' ? outcome.results.find((result) => result.key === key) : undefined;
  if (found === undefined) throw new Refusal(`“${entry.name || entry.kind}” has no result “${key}”.`);
  return found;
}

/** While a hand moves, what takes long to work out stays as it was before: it would come and go otherwise. */
function withNotesAtRest(outcome: Outcome, before: Outcome): Outcome {
  if (outcome.kind !== 'results' || outcome.atRest !== null || before.kind !== 'results') return outcome;
  const { atRest = null } = before;
  return { ...outcome, ...noted(outcome.notes, atRest) };
}

/** Entries are never changed, only replaced: what one says is written down once for all runs. */
const texts = new WeakMap<Entry, string>();

function textOf(entry: Entry): string {
  let text = texts.get(entry);
  if (text === undefined) texts.set(entry, (text = JSON.stringify(entry)));
  return text;
}

const same = (a: readonly unknown[], b: readonly unknown[]) =>
  a.length === b.length && a.every((value, i) => Object.is(value, b[i]));

/** What the workings say about a run: a pure function of both. */
export const evaluate = (workings: Workings, run: RunData, options?: EvaluateOptions): Evaluation =>
  new Evaluator(run).evaluate(workings, options);
