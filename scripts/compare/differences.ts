import { type Evaluation, type Outcome } from '@heuristor/core';

/** One thing that an evaluation says: a number, or words. */
export type Said = number | string;

/** Numbers that differ by less than this share of the larger one are the same. */
const alike = 1e-12;

const finite = (value: number | null | undefined): Said =>
  value == null ? 'none' : Number.isNaN(value) ? 'NaN' : value;

/** Everything that an outcome says in numbers, by the path to it; of a refusal only that it is one, and what it says. */
export function saidBy(outcome: Outcome): Map<string, Said> {
  const said = new Map<string, Said>();
  if (outcome.kind === 'refused') said.set('refused', outcome.sentence);
  if (outcome.kind === 'region') said.set('start', outcome.start).set('end', outcome.end);
  if (outcome.kind === 'series') {
    const { values } = outcome.series;
    said.set('readings', values.length);
    values.forEach((value, i) => said.set(`[${i}]`, finite(value)));
  }
  if (outcome.kind === 'results')
    for (const { key, quantity } of outcome.results) {
      said.set(key, finite(quantity.value));
      said.set(`± of ${key}`, finite(quantity.standardUncertainty));
    }
  return said;
}

export interface Difference {
  entry: string;
  what: string;
  before: Said | undefined;
  now: Said | undefined;
}

const differ = (a: Said | undefined, b: Said | undefined): boolean => {
  if (typeof a !== 'number' || typeof b !== 'number') return a !== b;
  return Math.abs(a - b) > alike * Math.max(Math.abs(a), Math.abs(b));
};

/** Where two evaluations of one sheet differ; of a series the first value that does, and how many do. */
export function differencesOf(before: Evaluation, now: Evaluation): Difference[] {
  const found: Difference[] = [];
  for (const entry of new Set([...before.outcomes.keys(), ...now.outcomes.keys()])) {
    const [was, is] = [before, now].map(({ outcomes }) => {
      const outcome = outcomes.get(entry);
      return outcome === undefined ? new Map<string, Said>() : saidBy(outcome);
    });
    const other = [...new Set([...was.keys(), ...is.keys()])].filter((what) =>
      differ(was.get(what), is.get(what)),
    );
    const values = other.filter((what) => what.startsWith('['));
    const named = other.filter((what) => !what.startsWith('['));
    for (const what of [...named, ...values.slice(0, 1)]) {
      const more = what.startsWith('[') && values.length > 1 ? `${what} and ${values.length - 1} more` : what;
      found.push({ entry, what: more, before: was.get(what), now: is.get(what) });
    }
  }
  return found;
}
