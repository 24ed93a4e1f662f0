import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import {
  type Entry,
  type FormulaText,
  type ParameterSetting,
  type ResultRef,
  type SeriesRef,
  type Unit,
  Refusal,
  channelRef,
  entryRef,
  isPi,
  kindOf,
  namesIn,
  orRefusal,
  parseFormula,
  parseUnit,
  resultRef,
  sameName,
  usualSetting,
  withNames,
} from '@heuristor/core';
import { type ShownOutcome } from '../../workers/protocol';
import { presentRuns } from '../../runs/runs';

/** Something that a formula can speak of. */
export interface Nameable {
  name: string;
  /** Absent of what is known by its name alone, such as the conditions of a run. */
  reference?: SeriesRef | ResultRef;
  unit: Unit;
  /** What kind of thing it is, in a word. */
  what: 'series' | 'result' | 'condition';
  /** Why it has no value, where it has none. */
  refused?: string;
}

interface Sheet {
  workings: Pick<WorkingsDocument, 'entries'>;
  runs: readonly Run[];
  outcomes: Readonly<Record<string, ShownOutcome>>;
  resultNames: Readonly<Record<ResultRef, string>>;
  conditions: readonly { name: string; unit: string }[];
  abscissa: string;
}

/** Everything that a formula can speak of on this bench, in the order in which a name is looked for. */
export function nameables({
  workings,
  runs,
  outcomes,
  resultNames,
  conditions,
  abscissa,
}: Sheet): Nameable[] {
  const found: Nameable[] = [];
  for (const { id, name, kind } of workings.entries) {
    const outcome = outcomes[id];
    if (name === '' || outcome === undefined) continue;
    if (outcome.kind === 'refused')
      found.push({
        name,
        unit: [],
        what: kindOf(kind).yields === 'series' ? 'series' : 'result',
        refused: outcome.sentence,
        ...(kindOf(kind).yields === 'series' ? { reference: entryRef(id) } : {}),
      });
    if (outcome.kind === 'series')
      found.push({ name, reference: entryRef(id), unit: outcome.unit, what: 'series' });
    if (outcome.kind === 'results' && kindOf(kind).yields === 'results') {
      const main = outcome.results.find((result) => result.main);
      if (main !== undefined)
        found.push({ name, reference: resultRef(id, main.key), unit: main.unit, what: 'result' });
    }
  }
  const seen = new Set<string>();
  for (const { channels } of presentRuns(runs))
    for (const { key, symbol, unit } of channels)
      if (!seen.has(key)) {
        seen.add(key);
        found.push({ name: symbol, reference: channelRef(key), unit: parseUnit(unit), what: 'series' });
      }
  for (const { name, unit } of conditions) found.push({ name, unit: parseUnit(unit), what: 'condition' });
  found.push({
    name: abscissa,
    reference: 't',
    unit: abscissa === 't' ? parseUnit('s') : [],
    what: 'series',
  });
  for (const [reference, name] of Object.entries(resultNames) as [ResultRef, string][]) {
    const [id] = reference.slice('result:'.length).split('/');
    const outcome = outcomes[id];
    const unit =
      outcome?.kind === 'results'
        ? outcome.results.find(({ key }) => resultRef(id, key) === reference)?.unit
        : undefined;
    if (unit !== undefined) found.push({ name, reference, unit, what: 'result' });
  }
  return found;
}

/** What a name means: what it was bound to when the formula was typed, or what is called so now. */
export function meant(
  name: string,
  { names }: Pick<FormulaText, 'names'>,
  known: readonly Nameable[],
): Nameable | undefined {
  const bound = Object.hasOwn(names, name) ? names[name] : undefined;
  const wanted = sameName(name);
  return (
    (bound === undefined ? undefined : known.find(({ reference }) => reference === bound)) ??
    known.find((one) => sameName(one.name) === wanted) ??
    onlyOneCalled(wanted, known)
  );
}

/** A result whose region was not named, where it is the only one of that name: "mean of F" for "mean of F, held". */
function onlyOneCalled(wanted: string, known: readonly Nameable[]): Nameable | undefined {
  const called = known.filter(
    ({ name, what }) => what === 'result' && sameName(name.replace(/, [^,]*$/, '')) === wanted,
  );
  return called.length === 1 ? called[0] : undefined;
}

/** A formula with what its names mean, so that it outlasts their renaming. */
export function boundFormula(text: string, before: FormulaText, known: readonly Nameable[]): FormulaText {
  const formula = orRefusal(() => parseFormula(text));
  if (formula instanceof Refusal) return { text, names: before.names };
  const names: Record<string, SeriesRef | ResultRef> = {};
  for (const name of namesIn(formula)) {
    const reference =
      meant(name, before, known)?.reference ??
      (Object.hasOwn(before.names, name) ? before.names[name] : undefined);
    if (reference !== undefined) names[name] = reference;
  }
  return { text, names };
}

/** The formulas of an entry, by their fields. */
export const formulasOf = (entry: Entry): [field: string, formula: FormulaText][] =>
  Object.entries(kindOf(entry.kind).fields)
    .filter(([, { type }]) => type === 'formula')
    .map(([field]) => [field, (entry as unknown as Record<string, FormulaText>)[field]]);

/**
 * Formulas follow an entry that gets another name: what spoke of it under its name, or under “mean of” its name, does so on.
 * @param references those of the entry's series and results
 */
export function withFormulasRenamed(
  workings: WorkingsDocument,
  id: string,
  from: string,
  to: string,
): WorkingsDocument {
  if (from === '' || to === '' || from === to) return workings;
  const isOwn = (reference: string) => reference === entryRef(id) || reference.startsWith(resultRef(id, ''));
  // What is bound to another entry of the same name keeps its name; what is bound to none meant the first of that name.
  const isFirst = workings.entries.find(({ name }) => sameName(name) === sameName(from))?.id === id;
  const renamed = (name: string) =>
    sameName(name) === sameName(from)
      ? to
      : name.endsWith(` of ${from}`)
        ? name.slice(0, -from.length) + to
        : name;
  const follows = ({ names }: FormulaText, name: string) =>
    !isPi(name) && renamed(name) !== name && (Object.hasOwn(names, name) ? isOwn(names[name]) : isFirst);
  return {
    ...workings,
    entries: workings.entries.map((entry) => {
      const formulas = formulasOf(entry);
      if (formulas.length === 0) return entry;
      const changed = formulas.map(([field, formula]) => {
        const text = withNames(formula.text, (name) => (follows(formula, name) ? renamed(name) : undefined));
        if (text === formula.text) return [field, formula];
        const names = Object.fromEntries(
          Object.entries(formula.names).map(([name, reference]) => [
            follows(formula, name) ? renamed(name) : name,
            reference,
          ]),
        );
        return [field, { text, names }];
      });
      return { ...entry, ...Object.fromEntries(changed) } as Entry;
    }),
  };
}

/** What was typed as “E = 1/2 m v^2”: a name and its formula. */
export function namedFormula(text: string): { name: string | null; text: string } {
  const found = /^\s*(\p{L}[\p{L}\d_₀-₉'′]*)\s*=\s*(?!=)([^=]*)$/u.exec(text);
  return found === null ? { name: null, text: text.trim() } : { name: found[1], text: found[2].trim() };
}

/** The settings of the parameters that a formula leaves open, those that were there before as they were. */
export function parametersFor(
  formula: FormulaText,
  before: Readonly<Record<string, ParameterSetting>>,
  known: readonly Nameable[],
): Record<string, ParameterSetting> {
  const read = orRefusal(() => parseFormula(formula.text));
  // What was taken as a parameter stays one, whatever is called so on the bench.
  const kept = read instanceof Refusal ? [] : namesIn(read).filter((name) => Object.hasOwn(before, name));
  return Object.fromEntries(
    [...new Set([...kept, ...openNames(formula, known)])].map((name) => [
      name,
      Object.hasOwn(before, name) ? before[name] : usualSetting,
    ]),
  );
}

/** Names in the relation of a fit that stand for something on the bench, and could be found by the fit instead. */
export function namesTaken(
  text: string,
  { formula, parameters, against }: Extract<Entry, { kind: 'formulaFit' }>,
  known: readonly Nameable[],
): Nameable[] {
  const read = orRefusal(() => parseFormula(text));
  if (read instanceof Refusal) return [];
  return namesIn(read).flatMap((name) => {
    const found = Object.hasOwn(parameters, name) ? undefined : meant(name, formula, known);
    return found === undefined || found.reference === against ? [] : [{ ...found, name }];
  });
}

/** Names in a formula that stand for nothing on the bench: the parameters of a typed relation. */
export function openNames(formula: FormulaText, known: readonly Nameable[]): string[] {
  const read = orRefusal(() => parseFormula(formula.text));
  return read instanceof Refusal
    ? []
    : namesIn(read).filter((name) => meant(name, formula, known) === undefined);
}

/** Whether a name stands in a formula. */
export function isUsedIn({ text }: FormulaText, name: string): boolean {
  const read = orRefusal(() => parseFormula(text));
  return !(read instanceof Refusal) && namesIn(read).includes(name);
}
