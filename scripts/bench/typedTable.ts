import { type TrialColumn, type TypedRow, emptyPage, emptyTable, panelOf } from '@heuristor/contracts';
import { type Entry } from '@heuristor/core';
import {
  changeInvestigation,
  createInvestigation,
  findDocument,
  onlyTeacher,
  writeDocument,
} from '@heuristor/server';

/**
 * An investigation whose trials have a table of typed rows: x from 1 on, y about twice as much, and the ratio of both, y drawn against x.
 * @param step from one x to the next
 * @returns its id
 */
export async function addTypedTable(
  name: string,
  { rows, step, entries = [] }: { rows: number; step: number; entries?: Entry[] },
): Promise<string> {
  const teacher = await onlyTeacher();
  const id = await createInvestigation(teacher, name);
  const conditions = ['x', 'y'].map((key) => ({ key, name: key, kind: 'number' as const, unit: 'm' }));
  await changeInvestigation(id, { plan: { conditions } });
  const base = { name: '', unit: '', hidden: false };
  const columns: TrialColumn[] = [
    ...conditions.map(({ key }) => ({
      ...base,
      kind: 'condition' as const,
      key: `c-${key}`,
      condition: key,
    })),
    { ...base, kind: 'formula', key: 'ratio', formula: 'y/x' },
  ];
  const typed = Array.from({ length: rows }, (_, i): TypedRow => {
    const x = 1 + i * step;
    return {
      id: `t${i}`,
      name: `row ${i}`,
      cells: {
        'c-x': { value: x, u: 0.01, unit: 'm' },
        'c-y': { value: 2 * x + 0.02 * Math.sin(37 * i), u: 0.02, unit: 'm' },
      },
    };
  });
  const page = { ...emptyPage, horizontal: 'channel:c-x' as const, panels: [panelOf('channel:c-y')] };
  const { version } = await findDocument(teacher, id, 'trials');
  await writeDocument(teacher, id, 'trials', version, {
    format: 1,
    tables: [
      { ...emptyTable, id: 'table-1', name: 'all', columns, typed, sheet: { entries, pages: [page] } },
    ],
  });
  return id;
}
