import { type Run } from '@heuristor/contracts';
import { useEffect, useRef, useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import {
  changeRun,
  frontRun,
  importFile,
  presentRuns,
  removeRun,
  restoreRun,
  shownRuns,
  useBench,
} from '../stores/bench';
import { useWorkings } from '../stores/workings';
import { runStyles } from '../theme/runStyles';
import { LineSample } from '../ui/LineSample';
import { NameField } from '../ui/NameField';
import { evaluation } from '../workers/evaluation';
import { savePicture } from './picture';
import { saveFile } from './saveFile';

async function saveCsv(runs: readonly Run[], name: string): Promise<void> {
  const text = await evaluation.exportCsv(
    runs.map((run) => ({ id: run.id, name: run.name })),
    useWorkings.getState().workings,
  );
  saveFile(new Blob([text], { type: 'text/csv' }), `${name}.csv`);
}

export function RunShelf() {
  const runs = useBench((state) => state.runs);
  const name = useBench((state) => state.name);
  const front = frontRun(useBench());
  const file = useRef<HTMLInputElement>(null);
  const removed = runs.filter((run) => run.removed);
  return (
    <footer className="shelf" aria-label="Runs">
      <span className="quiet">Runs</span>
      <div className="chips">
        {presentRuns(runs).map((run) => (
          <RunChip key={run.id} run={run} front={run.id === front?.id} />
        ))}
      </div>
      <div className="end">
        {removed.length > 0 && (
          <Dropdown drop="up" align="end">
            <Dropdown.Toggle variant="bare" className="no-caret">
              {removed.length} set apart
            </Dropdown.Toggle>
            <Dropdown.Menu popperConfig={{ strategy: 'fixed' }}>
              <Dropdown.Header>Put back</Dropdown.Header>
              {removed.map((run) => (
                <Dropdown.Item key={run.id} onClick={() => void restoreRun(run.id)}>
                  {run.number} · {run.name}
                </Dropdown.Item>
              ))}
            </Dropdown.Menu>
          </Dropdown>
        )}
        <Dropdown drop="up" align="end">
          <Dropdown.Toggle variant="plain" className="no-caret">
            Files
          </Dropdown.Toggle>
          <Dropdown.Menu popperConfig={{ strategy: 'fixed' }}>
            <Dropdown.Item onClick={() => file.current?.click()}>
              Bring in a file of columns (CSV)
            </Dropdown.Item>
            <Dropdown.Item
              disabled={shownRuns(runs).length === 0}
              onClick={() => void saveCsv(shownRuns(runs), name)}
            >
              Save shown runs with derived series (CSV)
            </Dropdown.Item>
            <Dropdown.Item disabled={shownRuns(runs).length === 0} onClick={savePicture}>
              Save the traces as a picture (PNG)
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
        <input
          ref={file}
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          hidden
          aria-label="File of columns"
          onChange={(event) => {
            const [chosen] = event.target.files ?? [];
            if (chosen !== undefined) void importFile(chosen);
            event.target.value = '';
          }}
        />
      </div>
    </footer>
  );
}

function RunChip({ run, front }: { run: Run; front: boolean }) {
  const [renaming, setRenaming] = useState(false);
  const chip = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    if (front) chip.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [front]);
  const { id, number, name, shown, style, state, gaps } = run;
  if (renaming)
    return (
      <NameField
        label={`New name of run ${number}`}
        className="form-control w-auto"
        value={name}
        autoFocus
        onCommit={(newName) => void changeRun(id, { name: newName })}
        onDone={() => setRenaming(false)}
      />
    );
  return (
    <span
      ref={chip}
      className={`chip ${shown ? '' : 'hidden-run'} ${front ? 'front' : ''}`}
      data-run={number}
    >
      <button
        aria-pressed={shown}
        title={shown ? 'Hide this run' : 'Show this run'}
        onClick={() => void changeRun(id, { shown: !shown })}
      >
        <LineSample style={style} />
        {number} · {name}
        {state === 'recording' && <span className="rec">recording</span>}
        {state === 'interrupted' && <span className="tag">interrupted</span>}
        {gaps.length > 0 && <span className="tag">gap</span>}
      </button>
      <Dropdown drop="up" align="end">
        <Dropdown.Toggle as="button" className="no-caret" aria-label={`More for run ${number}`}>
          <i className="bi bi-chevron-up" aria-hidden />
        </Dropdown.Toggle>
        <Dropdown.Menu popperConfig={{ strategy: 'fixed' }}>
          <Dropdown.Item disabled={!shown || front} onClick={() => useBench.setState({ frontRunId: id })}>
            Put in front
          </Dropdown.Item>
          <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>
          <Dropdown.Item disabled={!shown} onClick={() => void saveCsv([run], name)}>
            Save as CSV
          </Dropdown.Item>
          <Dropdown.Item disabled={state === 'recording'} onClick={() => void removeRun(run)}>
            Remove
          </Dropdown.Item>
          <Dropdown.Divider />
          {runStyles.map((choice, i) => (
            <Dropdown.Item
              key={choice.name}
              active={i === style}
              onClick={() => void changeRun(id, { style: i })}
            >
              <LineSample style={i} width={40} /> {choice.name}
            </Dropdown.Item>
          ))}
        </Dropdown.Menu>
      </Dropdown>
    </span>
  );
}
