import { Button } from 'react-bootstrap';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { useInvestigation } from '../investigation/context';
import { useTrials } from './context';
import { likelyTables } from './likelyTables';
import { countedRuns } from './counted';

/** What an empty page offers: tables that the workings make likely. */
export function FirstTables({ isShort = false }: { isShort?: boolean }) {
  const trials = useTrials();
  const session = useInvestigation();
  const { runs, plan, workings } = useStore(
    session.documents,
    useShallow(({ runs: all, plan: own, workings: sheet }) => ({ runs: all, plan: own, workings: sheet })),
  );
  const { outcomes, waiting } = useStore(trials.outcomes);
  const counted = countedRuns(runs);
  const likely = likelyTables({ runs: counted, conditions: plan.conditions, workings, outcomes });
  return (
    <>
      {!isShort && <h2>No table yet</h2>}
      {counted.length === 0 ? (
        <p>
          Record some runs on the bench first. Each becomes a row here, and each result of the workings a
          column.
        </p>
      ) : likely.length > 0 ? (
        <p>Each run is a row; results and conditions are its columns. These are likely:</p>
      ) : waiting > 0 ? (
        <p>The workings are evaluated for {counted.length} runs …</p>
      ) : (
        <p>
          Nothing is worked out yet. Mark a region on the bench and work something out of it, or begin with an
          empty table and type.
        </p>
      )}
      <div className="first-tables">
        {likely.map(({ title, table }) => (
          <Button key={title} variant="act" onClick={() => trials.addTable(table)}>
            {title}
          </Button>
        ))}
      </div>
    </>
  );
}
