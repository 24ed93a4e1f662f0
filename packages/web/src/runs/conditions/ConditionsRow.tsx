import { type ConditionColumn } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { useState } from 'react';
import { useDocuments, useFrontRun, useInvestigation } from '../../investigation/context';
import { ConditionField, GroupField, RemarkField } from './ConditionField';
import { ConditionsMenu } from './ConditionsMenu';
import { ConditionsTable } from './ConditionsTable';
import { NewCondition } from './NewCondition';
import { type Said, saidOfNext, saidOfRun } from './saidOf';

/**
 * What was changed for the run in front, who recorded it, and what there is to say; before the first run, of the one to come. Never
 * in the way of the next recording.
 */
export function ConditionsRow() {
  const session = useInvestigation();
  const columns = useDocuments(({ plan }) => plan.conditions);
  const forNext = useDocuments(({ plan }) => plan.forNext);
  const hasRecorded = useDocuments(({ runs }) =>
    runs.some(({ removed, origin }) => !removed && origin === 'recorded'),
  );
  const run = useFrontRun();
  const [isTable, setIsTable] = useState(false);
  if (run === undefined && hasRecorded) return null;
  const said = run === undefined ? saidOfNext(session, forNext) : saidOfRun(session, run);
  return (
    <section className="conditions" aria-label={`Conditions of ${said.called}`}>
      <span className="quiet">{run === undefined ? 'First run:' : `Run ${run.number}:`}</span>
      <Fields key={said.key} said={said} columns={columns} />
      <NewCondition columns={columns} />
      <ConditionsMenu columns={columns} onTable={() => setIsTable(true)} />
      {isTable && <ConditionsTable onClose={() => setIsTable(false)} />}
    </section>
  );
}

/** In the order in which they are read, with nothing between them on which Tab would stop. */
const Fields = ({ said, columns }: { said: Said; columns: readonly ConditionColumn[] }) => (
  <>
    {columns.map((column) => {
      const { key, name, kind, unit } = column;
      const id = `condition-${said.key}-${key}`;
      return (
        <span className="condition" key={key}>
          <label htmlFor={id}>{name}</label>
          <ConditionField id={id} column={column} said={said} />
          {kind === 'number' && <span>{printedUnit(parseUnit(unit))}</span>}
        </span>
      );
    })}
    <span className="condition">
      <label htmlFor={`group-${said.key}`}>Group</label>
      <GroupField id={`group-${said.key}`} said={said} />
    </span>
    {said.remark !== null && (
      <span className="condition wide">
        <label htmlFor={`note-${said.key}`}>Note</label>
        <RemarkField id={`note-${said.key}`} said={said} />
      </span>
    )}
  </>
);
