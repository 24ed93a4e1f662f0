import { mostAcross } from '@heuristor/contracts';
import { Refusal, orRefusal, printedUnit, parseUnit, valuesAcross } from '@heuristor/core';
import { useStore } from 'zustand';
import { useInvestigationDocuments } from '../investigation/context';
import { NumberField } from '../ui/NumberField';
import { TextField } from '../ui/TextField';
import { shortText } from '../ui/numberText';
import { constantOf } from './acrossReader';
import { useShownTable, useTrials } from './context';
import { withRows } from './trialsDocument';

const [fewest, most] = [2, mostAcross.values];

/** Where rows are values of a constant: between which ends, how many, and what is still being worked out. */
export function AcrossLine() {
  const trials = useTrials();
  const table = useShownTable();
  const entries = useInvestigationDocuments((documents) => documents.workings.entries);
  const { fault, waiting } = useStore(trials.across);
  if (table?.rows.kind !== 'constant') return null;
  const { rows } = table;
  const constant = constantOf(table, { entries });
  const change = (patch: Partial<typeof rows>) =>
    trials.changeTable((own) =>
      own.rows.kind === 'constant' ? withRows(own, { ...own.rows, ...patch }) : own,
    );
  const usual = constant === undefined ? null : orRefusal(() => valuesAcross(constant, '', 2));
  const called = constant === undefined || constant.name === '' ? 'the constant' : constant.name;
  return (
    <div className="trials-axes across-line">
      <span className="quiet">{called} goes from</span>
      <TextField
        label={`Between which values ${called} goes`}
        value={rows.ends}
        maxLength={60}
        className="across-ends"
        placeholder={
          usual === null || usual instanceof Refusal
            ? '0.2 to 0.4'
            : `${shortText(usual[0], 4)} to ${shortText(usual[1], 4)}`
        }
        check={(text) => {
          const found =
            constant === undefined || text.trim() === ''
              ? null
              : orRefusal(() => valuesAcross(constant, text, 2));
          return found instanceof Refusal ? found.message : null;
        }}
        onCommit={(ends) => change({ ends: ends.trim() })}
      />
      <span className="quiet">{constant === undefined ? '' : printedUnit(parseUnit(constant.unit))} in</span>
      <NumberField
        label={`How many values of ${called}`}
        value={rows.count}
        check={(count) =>
          Number.isInteger(count) && count >= fewest && count <= most
            ? null
            : `Type a whole number from ${fewest} to ${most}.`
        }
        onCommit={(count) => change({ count })}
      />
      <span className="quiet">values</span>
      {waiting > 0 && (
        <span className="quiet" role="status">
          {waiting} {waiting === 1 ? 'run is' : 'runs are'} being worked out …
        </span>
      )}
      {fault !== null && (
        <span className="field-fault" role="alert">
          {fault}
        </span>
      )}
    </div>
  );
}
