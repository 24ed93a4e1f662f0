import { type SheetSession } from '../investigation/sheetSession';
import { type ReactNode, memo, useEffect, useRef, useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { CheckSquare, ChevronUp, Square } from 'react-bootstrap-icons';
import { useDocuments, useFrontRun, useInvestigation } from '../investigation/context';
import { presentRuns, shownRuns } from './runs';
import { type SeenRun } from './seenRun';
import { runStyles } from './runStyles';
import { LineSample } from './LineSample';
import { NameField } from '../ui/NameField';
import { readingsWord } from '../ui/readingsWord';
import { ConditionsRow } from './conditions/ConditionsRow';
import { formsOf } from '../files/forms';
import { saveAs } from '../files/forms/save';
import { bringIn, importLimit } from '../files/ImportDialog';
import { bringInPasted } from '../files/pasting';
import { RunDetails } from './RunDetails';
import { FixedMenu } from '../ui/FixedMenu';
import { PinButton } from './PinButton';

/** More runs than this are found in the list rather than by eye. */
const manyRuns = 6;

interface Props {
  /** What “Make a picture” is of; null while there is none. */
  pictured: SheetSession | null;
  /** What stands in the place of the conditions for as long as it is needed. */
  inPlaceOfConditions?: ReactNode;
}

/** The shelf of runs, with the conditions of the one in front. */
export function RunChips({ pictured, inPlaceOfConditions = null }: Props) {
  const runs = useDocuments((documents) => documents.runs);
  const front = useFrontRun();
  const present = presentRuns(runs);
  const practice = present.filter((run) => run.practice && run.state !== 'recording');
  return (
    <>
      {inPlaceOfConditions ?? <ConditionsRow />}
      <footer className="shelf" aria-label="Runs">
        {present.length > manyRuns ? <RunList runs={present} /> : <span className="quiet">Runs</span>}
        <div className="chips">
          {present.map((run) => (
            <RunChip key={run.id} run={run} front={run.id === front?.id} />
          ))}
        </div>
        <div className="end">
          {practice.length > 0 && <ClearPractice runs={practice} />}
          <SetApart runs={runs.filter((run) => run.removed)} />
          <PinButton pictured={pictured} />
          <Files pictured={pictured} />
        </div>
      </footer>
    </>
  );
}

/** Practice runs go together, and come back together. */
function ClearPractice({ runs }: { runs: SeenRun[] }) {
  const session = useInvestigation();
  return (
    <Button variant="plain" onClick={() => void session.runActions.remove(runs)}>
      Clear {runs.length} practice {runs.length === 1 ? 'run' : 'runs'}
    </Button>
  );
}

/** All runs in a list that can be searched, several shown or hidden at once. */
function RunList({ runs }: { runs: SeenRun[] }) {
  const session = useInvestigation();
  const [search, setSearch] = useState('');
  const wanted = search.trim().toLowerCase();
  const found = runs.filter(({ name, number }) => `${number} · ${name}`.toLowerCase().includes(wanted));
  const shown = shownRuns(runs);
  const ids = (some: readonly SeenRun[]) => new Set(some.map(({ id }) => id));
  return (
    <Dropdown drop="up" autoClose="outside">
      <Dropdown.Toggle variant="plain" className="no-caret">
        {runs.length} runs, {shown.length} shown
      </Dropdown.Toggle>
      <FixedMenu className="run-list">
        <div className="run-list-head">
          <Form.Control
            type="search"
            aria-label="Search runs"
            placeholder="Search runs"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <Button variant="plain" onClick={() => session.runActions.show(ids(found))}>
            Show only {wanted === '' ? 'all' : 'these'}
          </Button>
          <Button variant="plain" onClick={() => session.runActions.show(ids(runs.slice(-3)))}>
            Newest 3
          </Button>
          <Button
            variant="plain"
            onClick={() =>
              session.runActions.show(ids(shown.filter(({ id }) => !found.some((run) => run.id === id))))
            }
          >
            Hide {wanted === '' ? 'all' : 'these'}
          </Button>
        </div>
        <div className="run-list-body">
          {found.map((run) => (
            <Dropdown.Item
              key={run.id}
              as="button"
              role="menuitemcheckbox"
              aria-checked={run.shown}
              onClick={() => session.runActions.look(run, { shown: !run.shown })}
            >
              {run.shown ? <CheckSquare aria-hidden /> : <Square aria-hidden />}{' '}
              <LineSample style={run.style} /> {run.number} · {run.name}
            </Dropdown.Item>
          ))}
          {found.length === 0 && <p className="quiet p-2">No run has this name.</p>}
        </div>
      </FixedMenu>
    </Dropdown>
  );
}

function SetApart({ runs }: { runs: SeenRun[] }) {
  const session = useInvestigation();
  if (runs.length === 0) return null;
  return (
    <Dropdown drop="up" align="end">
      <Dropdown.Toggle variant="bare" className="no-caret">
        {runs.length} set apart
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu">
        <Dropdown.Header>Put back</Dropdown.Header>
        {runs.map((run) => (
          <Dropdown.Item key={run.id} onClick={() => void session.runActions.change(run, { removed: false })}>
            {run.number} · {run.name}
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}

function Files({ pictured }: { pictured: SheetSession | null }) {
  const session = useInvestigation();
  const name = useDocuments((documents) => documents.name);
  const runs = useDocuments((documents) => documents.runs);
  const file = useRef<HTMLInputElement>(null);
  const shown = shownRuns(runs);
  return (
    <>
      <Dropdown drop="up" align="end">
        <Dropdown.Toggle variant="plain" className="no-caret">
          Files
        </Dropdown.Toggle>
        <FixedMenu>
          <Dropdown.Item onClick={() => file.current?.click()}>
            Bring in a file of columns (CSV, {importLimit})
          </Dropdown.Item>
          <Dropdown.Item onClick={() => void bringInPasted(session)}>
            Paste columns that were copied (Ctrl V does it too)
          </Dropdown.Item>
          {formsOf('runs').map((form) => (
            <Dropdown.Item
              key={form.extension}
              disabled={shown.length === 0}
              onClick={() => void saveAs(form, name, () => form.write(session, shown))}
            >
              Save shown runs {form.title}
            </Dropdown.Item>
          ))}
          <Dropdown.Item
            disabled={pictured === null || shownRuns(pictured.runs).length === 0}
            onClick={() => pictured?.dialogs.ask('picture', { only: null })}
          >
            Make a picture of the traces (
            {formsOf('picture')
              .map(({ extension }) => extension.toUpperCase())
              .reverse()
              .join(', ')}
            )
          </Dropdown.Item>
        </FixedMenu>
      </Dropdown>
      <input
        ref={file}
        type="file"
        accept=".csv,.tsv,.txt,text/csv"
        hidden
        aria-label="File of columns"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen !== undefined) bringIn(session, chosen);
          event.target.value = '';
        }}
      />
    </>
  );
}

/** Of hundreds of runs only those that change are made anew. */
const RunChip = memo(function RunChip({ run, front }: { run: SeenRun; front: boolean }) {
  const session = useInvestigation();
  const [renaming, setRenaming] = useState(false);
  const [isOpen, setIsOpen] = useState(false);
  const chip = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    if (front) chip.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [front]);
  const { id, number, name, shown, style, state, gaps, notes } = run;
  if (renaming)
    return (
      <NameField
        label={`New name of run ${number}`}
        className="w-auto"
        value={name}
        autoFocus
        onCommit={(newName) => void session.runActions.change(run, { name: newName })}
        onDone={() => setRenaming(false)}
      />
    );
  return (
    <span
      ref={chip}
      className={`chip ${shown ? '' : 'hidden-run'} ${front ? 'front' : ''} ${run.practice ? 'practice' : ''}`}
      data-run={number}
    >
      <button
        aria-pressed={shown}
        title={[shown ? 'Hide this run' : 'Show this run', ...notes].join('\n')}
        onClick={() => session.runActions.look(run, { shown: !shown })}
      >
        <LineSample style={style} />
        {number} · {name}
        {state === 'recording' && <span className="rec">recording</span>}
        {state === 'interrupted' && <span className="tag">interrupted</span>}
        {run.practice && <span className="tag">practice</span>}
        {run.origin === 'away' && <span className="tag">away</span>}
        {run.spot !== null && (
          <span className="tag">{readingsWord(run.spot.rows.filter(({ removed }) => !removed).length)}</span>
        )}
        {gaps.length > 0 && <span className="tag">gap</span>}
        {notes.length > 0 && gaps.length === 0 && <span className="tag">note</span>}
      </button>
      <Dropdown drop="up" align="end">
        <Dropdown.Toggle as="button" className="no-caret" aria-label={`More for run ${number}`}>
          <ChevronUp aria-hidden />
        </Dropdown.Toggle>
        <FixedMenu>
          {notes.map((note) => (
            <Dropdown.ItemText key={note} className="run-note">
              {note}
            </Dropdown.ItemText>
          ))}
          <Dropdown.Item disabled={!shown || front} onClick={() => session.viewing.bringToFront(id)}>
            Put in front
          </Dropdown.Item>
          <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>
          <Dropdown.Item
            disabled={!shown}
            onClick={() => {
              session.viewing.bringToFront(id);
              session.viewing.setHandMode('shift');
            }}
          >
            Move in time
          </Dropdown.Item>
          {formsOf('runs').map((form) => (
            <Dropdown.Item
              key={form.extension}
              disabled={!shown}
              onClick={() => void saveAs(form, name, () => form.write(session, [run]))}
            >
              Save as {form.extension.toUpperCase()}
            </Dropdown.Item>
          ))}
          <Dropdown.Item onClick={() => setIsOpen(true)}>How it was recorded</Dropdown.Item>
          <Dropdown.Item onClick={() => void session.runActions.change(run, { practice: !run.practice })}>
            {run.practice ? 'Keep it as a normal run' : 'Make it a practice run'}
          </Dropdown.Item>
          {run.channels.some(({ low, high }) => low !== null || high !== null) && (
            <Dropdown.Item
              disabled={state === 'recording'}
              onClick={() => session.runActions.look(run, { keepPinned: !run.keepPinned })}
            >
              {run.keepPinned ? 'Leave out limits and wrong echoes' : 'Count limits and wrong echoes too'}
            </Dropdown.Item>
          )}
          <Dropdown.Item
            disabled={state === 'recording'}
            onClick={() => void session.runActions.remove([run])}
          >
            Remove
          </Dropdown.Item>
          <Dropdown.Divider />
          {runStyles.map((choice, i) => (
            <Dropdown.Item
              key={choice.name}
              active={i === style}
              onClick={() => session.runActions.look(run, { style: i })}
            >
              <LineSample style={i} width={40} /> {choice.name}
            </Dropdown.Item>
          ))}
        </FixedMenu>
      </Dropdown>
      {isOpen && <RunDetails run={run} onClose={() => setIsOpen(false)} />}
    </span>
  );
});
