import { Refusal } from '../refusal';
import { type Series, indexAfter, indexAtOrAfter } from '../series/series';
import { type Context } from './context';
import { evaluateLine } from './kinds';
import { type Line, type SeriesRef, type Workings } from './lines';
import { type Outcome } from './outcome';
import { type RunData, abscissaOf, channelSeries } from './run';

/** What the workings say about one run: an outcome for every line, by its id. */
export interface Evaluation {
  runId: string;
  outcomes: Map<string, Outcome>;
}

interface Remembered {
  inputs: unknown[];
  outcome: Outcome;
}

/**
 * Evaluates workings over one run again and again, as people change them. Says the same as `evaluate`, which is a pure
 * function of workings and run; it only remembers, for every line, the inputs it was last worked out from.
 */
export class Evaluator {
  private readonly channels = new Map<string, Series>();
  private readonly abscissas = new Map<Float64Array, Series>();
  private remembered = new Map<string, Remembered>();

  constructor(readonly run: RunData) {
    for (const channel of run.channels) this.channels.set(channel.key, channelSeries(channel));
  }

  evaluate({ lines }: Workings): Evaluation {
    const { outcomeOf } = this.pass(lines);
    const outcomes = new Map(lines.map((line) => [line.id, outcomeOf(line)]));
    for (const id of this.remembered.keys()) if (!outcomes.has(id)) this.remembered.delete(id);
    return { runId: this.run.id, outcomes };
  }

  /** The series behind a reference. @throws Refusal */
  series({ lines }: Workings, reference: SeriesRef): Series {
    return this.pass(lines).context.series(reference);
  }

  private pass(lines: readonly Line[]) {
    const byId = new Map(lines.map((line) => [line.id, line]));
    const done = new Map<string, Outcome>();
    const open = new Set<string>();

    const outcomeOf = (line: Line): Outcome => {
      const known = done.get(line.id);
      if (known !== undefined) return known;
      if (open.has(line.id))
        throw new Refusal(`“${line.name}” is worked out from itself. Choose another series for it.`);
      open.add(line.id);
      const outcome = this.outcomeOf(line, context);
      open.delete(line.id);
      done.set(line.id, outcome);
      return outcome;
    };

    const context: Context = {
      series: (reference, like) => {
        if (reference === 't') return this.abscissa(like ?? this.anyChannel());
        const name = reference.slice(reference.indexOf(':') + 1);
        if (reference.startsWith('channel:')) {
          const channel = this.channels.get(name);
          if (channel === undefined) throw new Refusal(`This run has no ${name}.`);
          return channel;
        }
        const line = byId.get(name);
        if (line === undefined)
          throw new Refusal(
            'The series that this line speaks of was removed. Undo, or choose another series.',
          );
        const outcome = outcomeOf(line);
        if (outcome.kind === 'refused') throw new Refusal(outcome.sentence);
        if (outcome.kind !== 'series') throw new Refusal(`“${line.name}” is not a series.`);
        return outcome.series;
      },
      region: (id) => {
        if (id === null) return null;
        const line = byId.get(id);
        if (line?.kind !== 'region')
          throw new Refusal('The region of this line was removed. Undo, or choose another region.');
        const outcome = outcomeOf(line);
        if (outcome.kind === 'refused') throw new Refusal(outcome.sentence);
        return line;
      },
    };
    return { context, outcomeOf };
  }

  private outcomeOf(line: Line, context: Context): Outcome {
    try {
      const inputs = this.inputsOf(line, context);
      const before = this.remembered.get(line.id);
      if (before !== undefined && sameInputs(before.inputs, inputs)) return before.outcome;
      const outcome = evaluateLine(line, context);
      this.remembered.set(line.id, { inputs, outcome });
      return outcome;
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      return { kind: 'refused', sentence: error.message };
    }
  }

  /** Everything that decides an outcome: the line's own words, the series it reads, the readings its region holds. */
  private inputsOf(line: Line, context: Context): unknown[] {
    const inputs: unknown[] = [JSON.stringify(line)];
    if (line.kind === 'region') return inputs;
    const of = context.series(line.of);
    inputs.push(of);
    if ('against' in line) inputs.push(context.series(line.against, of));
    if (!('region' in line)) return inputs;
    const region = context.region(line.region);
    if (region === null) return inputs;
    if (region.along === 't' && line.kind !== 'area')
      inputs.push(indexAtOrAfter(of.times, region.start), indexAfter(of.times, region.end));
    else
      inputs.push(region.start, region.end, region.along === 't' ? null : context.series(region.along, of));
    return inputs;
  }

  private abscissa(like: Series): Series {
    let abscissa = this.abscissas.get(like.times);
    if (abscissa === undefined) {
      abscissa = abscissaOf(like);
      this.abscissas.set(like.times, abscissa);
    }
    return abscissa;
  }

  private anyChannel(): Series {
    const [first] = this.channels.values();
    if (first === undefined) throw new Refusal('This run holds no channel.');
    return first;
  }
}

const sameInputs = (a: readonly unknown[], b: readonly unknown[]) =>
  a.length === b.length && a.every((value, i) => Object.is(value, b[i]));

/** What the workings say about a run: a pure function of both. */
export const evaluate = (workings: Workings, run: RunData): Evaluation =>
  new Evaluator(run).evaluate(workings);
