import { type LeftOutCount, type Run } from '@heuristor/contracts';
import { type ResultRef, resultRef } from '@heuristor/core';
import * as Y from 'yjs';
import { countedRuns } from '../trials/counted';
import { type RunOutcome } from '../trials/rowOutcomes';
import { conditionsSaid } from '../runs/conditions/conditionText';
import { type NewBlock } from './document/notebookDocument';
import { howRecorded } from './howRecorded';
import { type NotebookHost } from './host';
import { resultText } from './quotation';
import { namesOf } from './useQuoted';

type Inline = string | { quote: Record<string, string> };

const withText = (node: Y.XmlElement, parts: readonly Inline[]) => {
  node.insert(
    0,
    parts.map((part) => {
      if (typeof part === 'string') return new Y.XmlText(part);
      const quote = new Y.XmlElement('quote');
      for (const [name, value] of Object.entries(part.quote)) quote.setAttribute(name, value);
      return quote;
    }),
  );
  return node;
};
const paragraph = (...parts: Inline[]) => withText(new Y.XmlElement('paragraph'), parts);
function heading(text: string): Y.XmlElement {
  const node = new Y.XmlElement('heading');
  // The editor keeps the level of a heading as a number.
  node.setAttribute('level', 2 as unknown as string);
  return withText(node, [text]);
}
function list(items: readonly Inline[][]): Y.XmlElement {
  const node = new Y.XmlElement('bulletList');
  node.insert(
    0,
    items.map((parts) => {
      const item = new Y.XmlElement('listItem');
      item.insert(0, [paragraph(...parts)]);
      return item;
    }),
  );
  return node;
}
const text = (...nodes: Y.XmlElement[]): NewBlock => ({ kind: 'text', text: nodes });

/** Of more runs than this only the table tells. */
const mostListed = 8;

/** The runs whose results the outline quotes. */
export const listedRuns = <R extends Run>(runs: readonly R[]): R[] => countedRuns(runs).slice(-mostListed);

/**
 * The parts of a report, filled with what the investigation knows: how it was recorded, its runs with their conditions, its results.
 * @param outcomes what the workings say of runs, as far as that is known
 * @param leftOut readings of runs that are no measurement
 */
export function outlineOf(
  { documents }: Pick<NotebookHost, 'documents'>,
  outcomes: ReadonlyMap<string, RunOutcome>,
  leftOut: ReadonlyMap<string, readonly LeftOutCount[]>,
): NewBlock[] {
  const { runs: all, workings, plan } = documents.getState();
  const runs = countedRuns(all);
  const recorded = howRecorded(runs, workings, leftOut);
  const listed = listedRuns(all);
  const results = listed.flatMap((run): Inline[][] => {
    const outcome = outcomes.get(run.id);
    if (outcome === undefined) return [];
    const names = namesOf(workings, outcome, run);
    return [...outcome.results.values()]
      .filter(({ main }) => main)
      .flatMap(({ entry, field: key }): Inline[][] => {
        const then = resultText(outcome, workings, entry, key);
        const name = names[resultRef(entry, key) as ResultRef];
        return then === null
          ? []
          : [[`${run.name}: ${name} = `, { quote: { of: 'result', run: run.id, entry, key, then } }]];
      });
  });
  return [
    text(heading('Question'), paragraph()),
    text(
      heading('Apparatus'),
      paragraph(),
      ...(recorded.length > 0 ? [paragraph('How it was recorded:'), list(recorded.map((one) => [one]))] : []),
    ),
    text(heading('What we expect'), paragraph()),
    text(
      heading('Runs'),
      listed.length > 0
        ? list(
            listed.map((run) => {
              const said = conditionsSaid(run.conditions, plan.conditions);
              return [`${run.number} · ${run.name}${said.length > 0 ? `: ${said.join(', ')}` : ''}`];
            }),
          )
        : paragraph(),
    ),
    ...(runs.length > 0 && workings.entries.length > 0
      ? [{ kind: 'results' as const, lines: { title: 'Results of all runs' } }]
      : []),
    text(heading('Working out'), paragraph()),
    text(
      heading('Result'),
      ...(results.length > 0 && results.length <= 12 ? [list(results)] : [paragraph()]),
    ),
    text(heading('Comparison'), paragraph()),
    text(heading('What we doubt'), paragraph()),
  ];
}
