import { type Plan, type Run, type TrialTable, type WorkingsDocument } from '@heuristor/contracts';
import { type EntryOfKind, Refusal, orRefusal, valuesAcross } from '@heuristor/core';
import isEqual from 'fast-deep-equal';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { askAgainMilliseconds, mayAnswerLater } from '../api/askAgain';
import { sentenceOf } from '../api/client';
import { type AskedAcross, outcomesAcross } from '../runs/outcomesAcross';
import { type RunPool } from '../runs/pool';
import { type RunOutcome, outcomesOfSheets } from './rowOutcomes';

/** More rows than these of values of a constant are no table. */
const mostRows = 1000;

interface Asked {
  table: TrialTable | undefined;
  runs: readonly Run[];
  workings: WorkingsDocument;
  plan: Pick<Plan, 'conditions'>;
}

/** What is asked for in full: another one is asked only where this differs. */
interface Basis extends Omit<Asked, 'table'> {
  entry: string;
  count: number;
  values: readonly number[];
  entries: readonly string[];
  /** Why there are no values. */
  fault: string | null;
}

/** What follows from each value of a constant, by run; a sentence where nothing can. */
export interface AcrossConstant {
  /** The constant and its values that these are of; null where rows are something else. */
  of: { entry: string; values: readonly number[] } | null;
  fault: string | null;
  outcomes: ReadonlyMap<string, readonly RunOutcome[]>;
  waiting: number;
}

const nothing: AcrossConstant = { of: null, fault: null, outcomes: new Map(), waiting: 0 };

/** The constant of which a table has values as rows; undefined where it has gone. */
export const constantOf = (
  { rows }: Pick<TrialTable, 'rows'>,
  { entries }: Pick<WorkingsDocument, 'entries'>,
): EntryOfKind<'constant'> | undefined =>
  rows.kind === 'constant'
    ? entries.find(
        (entry): entry is EntryOfKind<'constant'> => entry.id === rows.entry && entry.kind === 'constant',
      )
    : undefined;

/** Works out, run by run, what follows from each value of a constant that a table has as rows. */
export class AcrossReader {
  readonly state: StoreApi<AcrossConstant> = createStore(() => nothing);
  /** What is shown, or on its way. */
  private basis: Basis | null = null;
  private isStale = false;
  private busy = false;
  private ended = false;

  constructor(
    private readonly pool: Pick<RunPool, 'holds' | 'demand'>,
    private readonly stored: () => Promise<void>,
    private readonly onFault: (sentence: string) => void,
  ) {}

  /** From now on this table is wanted, by this sheet. */
  want(asked: Asked): void {
    const basis = basisOf(asked);
    if (isEqual(basis, this.basis)) return;
    this.basis = basis;
    this.isStale = true;
    if (!this.busy) void this.goOn();
  }

  dispose(): void {
    this.ended = true;
  }

  private async goOn(): Promise<void> {
    this.busy = true;
    while (!this.ended && this.isStale) {
      this.isStale = false;
      await this.read(this.basis);
    }
    this.busy = false;
  }

  private async read(basis: Basis | null): Promise<void> {
    if (basis === null) {
      this.state.setState(nothing);
      return;
    }
    const { entry, count, values, entries, fault, runs, workings, plan } = basis;
    const asked = fault === null ? runs.slice(0, Math.floor(mostRows / count)) : [];
    const left = fault === null ? runs.length - asked.length : 0;
    const outcomes = new Map<string, readonly RunOutcome[]>();
    this.state.setState({
      of: { entry, values },
      fault:
        left > 0
          ? `A table has ${mostRows} such rows at most: ${left} runs are left out. Ask for fewer values.`
          : fault,
      outcomes,
      waiting: asked.length,
    });
    for (const [i, run] of asked.entries()) {
      const question = { run, plan, workings, constant: entry, values, entries, stored: this.stored };
      const answer = await this.answerTo(question);
      if (answer !== null) outcomes.set(run.id, answer);
      if (this.ended || this.isStale) return;
      this.state.setState({ outcomes: new Map(outcomes), waiting: asked.length - i - 1 });
    }
  }

  /** What follows in a run; asked for again as long as the server is not there, unless something else is wanted. */
  private async answerTo(question: AskedAcross): Promise<RunOutcome[] | null> {
    let isFaultSaid = false;
    while (!this.ended && !this.isStale) {
      try {
        return outcomesOfSheets(await outcomesAcross(this.pool, question));
      } catch (error) {
        if (this.ended || this.isStale) return null;
        if (!isFaultSaid) this.onFault(`${question.run.name} could not be worked out. ${sentenceOf(error)}`);
        isFaultSaid = true;
        if (!mayAnswerLater(error)) return null;
        await new Promise((resolve) => setTimeout(resolve, askAgainMilliseconds));
      }
    }
    return null;
  }
}

function basisOf({ table, runs, workings, plan }: Asked): Basis | null {
  if (table?.rows.kind !== 'constant') return null;
  const { ends, count, entry } = table.rows;
  const constant = constantOf(table, workings);
  const values =
    constant === undefined
      ? new Refusal('This constant was removed from the workings. Choose other rows, or undo.')
      : orRefusal(() => valuesAcross(constant, ends, count));
  return {
    entry,
    count,
    ...(values instanceof Refusal ? { values: [], fault: values.message } : { values, fault: null }),
    entries: entriesFor(table, workings),
    workings,
    plan: { conditions: plan.conditions },
    runs,
  };
}

/** The constant itself and what columns speak of; where one has a formula, also what that may call by its name. */
function entriesFor({ rows, columns }: TrialTable, { entries }: WorkingsDocument): string[] {
  const hasFormula = columns.some(({ kind }) => kind === 'formula');
  const spoken = new Set(columns.flatMap((column) => (column.kind === 'result' ? [column.entry] : [])));
  return entries
    .filter(
      ({ id, name }) =>
        spoken.has(id) || (rows.kind === 'constant' && rows.entry === id) || (hasFormula && name !== ''),
    )
    .map(({ id }) => id);
}
