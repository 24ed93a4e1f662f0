import { type Entry, isSameForAllRuns, kindOf } from '@heuristor/core';
import { type Run } from '@heuristor/contracts';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useFrontRun, usePicture } from '../session/context';
import { formulasOf } from '../session/formulas';
import { shownRuns } from '../session/runs';
import { LineSample } from '../ui/LineSample';
import { ResultText } from '../ui/ResultText';
import { UnitText } from '../ui/UnitText';
import { type ShownOutcome, type ShownResult } from '../workers/protocol';
import { Budget } from './Budget';
import { DrawnCheck } from './DrawnCheck';
import { RunValues } from './RunValues';
import { ShownWorking } from './ShownWorking';

/** What an entry works out: in full for the run in front, in one row for each of the others. */
export function EntryResults({
  entry,
  digits,
  isEdited,
}: {
  entry: Entry;
  digits: boolean;
  isEdited: boolean;
}) {
  const front = useFrontRun();
  const shown = useDocuments(useShallow(({ runs }) => shownRuns(runs)));
  const outcomes = usePicture(
    useShallow((picture) => shown.map(({ id }) => picture.outcomes[id]?.[entry.id])),
  );
  if (front === undefined) return null;
  // A constant says itself what it is; what is wrong with a formula is said where it is typed.
  const isSaidAbove = entry.kind === 'constant' || (isEdited && formulasOf(entry).length > 0);
  const found = outcomes[shown.findIndex(({ id }) => id === front.id)];
  const own = isSaidAbove && found?.kind === 'refused' ? undefined : found;
  const isSame = isSameForAllRuns(entry);
  if (entry.folded === true && found?.kind === 'results') return <MainOf outcome={found} />;
  if (entry.kind === 'constant' && found?.kind === 'results') return <Notes notes={found.notes} />;
  const others = shown
    .map((run, i) => ({ run, outcome: outcomes[i] }))
    .filter(({ run }) => run.id !== front.id);
  // A refusal that several runs share is said once.
  const sentence = own?.kind === 'refused' ? own.sentence : null;
  const sharing = others.filter(
    ({ outcome }) => outcome?.kind === 'refused' && outcome.sentence === sentence,
  );
  const rest = others.filter((other) => !sharing.includes(other));
  return (
    <>
      {own !== undefined && (
        <FrontOutcome
          entryId={entry.id}
          kind={entry.kind}
          run={front}
          outcome={own}
          digits={digits}
          shared={sharing.length > 0 ? sharing.length + 1 : 0}
          allShare={rest.length === 0}
        />
      )}
      {kindOf(entry.kind).yields === 'results' && !isSame && rest.length > 0 && (
        <div className="other-runs">
          {grouped(rest).map(({ runs, outcome }) => (
            <OtherRuns key={runs[0].id} runs={runs} outcome={outcome} />
          ))}
        </div>
      )}
    </>
  );
}

interface RunOutcome {
  run: Run;
  outcome: ShownOutcome | undefined;
}

/** Runs with the same refusal together, the others each for itself. */
function grouped(rows: readonly RunOutcome[]): { runs: Run[]; outcome: ShownOutcome | undefined }[] {
  const groups: { runs: Run[]; outcome: ShownOutcome | undefined }[] = [];
  for (const { run, outcome } of rows) {
    const same =
      outcome?.kind === 'refused'
        ? groups.find(
            (group) => group.outcome?.kind === 'refused' && group.outcome.sentence === outcome.sentence,
          )
        : undefined;
    if (same === undefined) groups.push({ runs: [run], outcome });
    else same.runs.push(run);
  }
  return groups;
}

interface FrontProps {
  entryId: string;
  kind: Entry['kind'];
  run: Run;
  outcome: ShownOutcome;
  digits: boolean;
  shared: number;
  allShare: boolean;
}

function FrontOutcome({ entryId, kind, run, outcome, digits, shared, allShare }: FrontProps) {
  const [asked, setAsked] = useState<string | null>(null);
  switch (outcome.kind) {
    case 'refused':
      return (
        <div className="refused">
          {shared > 0 && <strong>{allShare ? 'All runs: ' : `${shared} runs: `}</strong>}
          {outcome.sentence}
        </div>
      );
    case 'region':
      return null;
    case 'series':
      return <Notes notes={outcome.notes} />;
    case 'results': {
      const wanted = outcome.results.find(({ key }) => key === asked);
      return (
        <>
          <div className="results">
            {outcome.results.map((result) => (
              <Pair
                key={result.key}
                result={result}
                isAsked={asked === result.key}
                onAsk={() => setAsked(asked === result.key ? null : result.key)}
              />
            ))}
          </div>
          {wanted !== undefined && (
            <>
              <ShownWorking entryId={entryId} runId={run.id} result={wanted} />
              {kind === 'calculation' && <DrawnCheck entryId={entryId} runId={run.id} result={wanted} />}
              {wanted.halfWidth !== null && <Budget entryId={entryId} runId={run.id} result={wanted} />}
              <RunValues entryId={entryId} resultKey={wanted.key} />
            </>
          )}
          <Notes notes={outcome.notes} />
          {digits && <AllDigits outcome={outcome} />}
        </>
      );
    }
  }
}

/** The main result alone, of an entry that is folded. */
function MainOf({ outcome }: { outcome: Extract<ShownOutcome, { kind: 'results' }> }) {
  const main = outcome.results.find((result) => result.main);
  if (main === undefined) return null;
  return (
    <div className="results">
      <span className="name main">{main.name}</span>
      <span className="value main" data-result={main.key}>
        <ResultText result={main} />
      </span>
    </div>
  );
}

function Notes({ notes }: { notes: string[] }) {
  return (
    <>
      {notes.map((note) => (
        <p key={note} className="note">
          {note}
        </p>
      ))}
    </>
  );
}

function whatOpens({ name, halfWidth, isWorkedOut = false }: ShownResult): string {
  const budget = `what the uncertainty of ${name} is made of`;
  if (!isWorkedOut) return budget;
  return halfWidth === null ? `how ${name} was worked out` : `how it was worked out, and ${budget}`;
}

interface PairProps {
  result: ShownResult;
  isAsked: boolean;
  onAsk: () => void;
}

/** A name and its number; one with an uncertainty says on a click what that is made of. */
function Pair({ result, isAsked, onAsk }: PairProps) {
  const opens = result.isWorkedOut === true;
  return (
    <>
      <span className={`name ${result.main ? 'main' : ''}`}>{result.name}</span>
      <span className={`value ${result.main ? 'main' : ''}`} data-result={result.key}>
        {result.halfWidth === null && !opens ? (
          <ResultText result={result} />
        ) : (
          <Button variant="number" aria-expanded={isAsked} onClick={onAsk}>
            <ResultText result={result} />
            <span className="visually-hidden">, {whatOpens(result)}</span>
          </Button>
        )}
      </span>
    </>
  );
}

function OtherRuns({ runs, outcome }: { runs: Run[]; outcome: ShownOutcome | undefined }) {
  const [first] = runs;
  const main = outcome?.kind === 'results' ? outcome.results.find((result) => result.main) : undefined;
  return (
    <div data-run={first.number}>
      <LineSample style={first.style} width={20} />
      <span className="run-name">{runs.length === 1 ? first.name : `${runs.length} runs`}</span>
      {outcome?.kind === 'refused' && <span className="sentence-small">{outcome.sentence}</span>}
      {main !== undefined && (
        <span className="mono" data-result={main.key}>
          <ResultText result={main} />
        </span>
      )}
    </div>
  );
}

/** Every digit, for those who carry results on by hand, and how the parameters hang together. */
function AllDigits({ outcome }: { outcome: Extract<ShownOutcome, { kind: 'results' }> }) {
  const { results, correlations, count } = outcome;
  return (
    <div className="full-digits mono">
      <table>
        <tbody>
          {results.map(({ key, name, value, standardUncertainty, unit }) => (
            <tr key={key} data-digits={key}>
              <th>{name}</th>
              <td>{value}</td>
              <td>{standardUncertainty === null ? '' : `u = ${standardUncertainty}`}</td>
              <td>
                <UnitText unit={unit} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {count !== null && <div>{count} readings</div>}
      {correlations?.map((row, i) =>
        row.slice(0, i).map((value, j) => (
          <div key={`${i}/${j}`}>
            r({results[j].name}, {results[i].name}) = {value.toFixed(3).replace('-', '−')}
          </div>
        )),
      )}
    </div>
  );
}
