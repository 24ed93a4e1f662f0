import { type Entry, type Unit, isSameForAllRuns, kindOf, ucumCode, unitShown } from '@heuristor/core';
import { useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useFrontRun, usePicture, useSession } from '../../investigation/context';
import { formulasOf } from '../formulas/formulas';
import { shownRuns } from '../../runs/runs';
import { type SeenRun } from '../../runs/seenRun';
import { LineSample } from '../../runs/LineSample';
import { ResultRow } from '../../ui/ResultRow';
import { ResultText } from '../../ui/ResultText';
import { UnitText } from '../../ui/UnitText';
import { type ShownOutcome, type ShownResult } from '../../workers/protocol';
import { Budget } from '../results/Budget';
import { DrawnCheck } from '../results/DrawnCheck';
import { RunValues } from '../results/RunValues';
import { ShownWorking } from './ShownWorking';
import { fixedText, written } from '../../ui/numberText';

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
  if (entry.folded === true && found?.kind === 'results') return <MainOf entry={entry} outcome={found} />;
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
          entry={entry}
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
            <OtherRuns key={runs[0].id} entry={entry} runs={runs} outcome={outcome} like={own} />
          ))}
        </div>
      )}
    </>
  );
}

interface RunOutcome {
  run: SeenRun;
  outcome: ShownOutcome | undefined;
}

interface RunOutcomes {
  runs: SeenRun[];
  outcome: ShownOutcome | undefined;
}

/** Runs with the same refusal together, the others each for itself. */
function grouped(rows: readonly RunOutcome[]): RunOutcomes[] {
  const groups: RunOutcomes[] = [];
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
  entry: Entry;
  run: SeenRun;
  outcome: ShownOutcome;
  digits: boolean;
  shared: number;
  allShare: boolean;
}

function FrontOutcome({ entry, run, outcome, digits, shared, allShare }: FrontProps) {
  const [asked, setAsked] = useState<string | null>(null);
  switch (outcome.kind) {
    case 'refused':
      return (
        <div className={outcome.lacks === undefined ? 'refused' : 'note'}>
          {shared > 0 && <strong>{allShare ? 'All runs: ' : `${shared} runs: `}</strong>}
          {written(outcome.sentence)}
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
                entry={entry}
                result={result}
                isAsked={asked === result.key}
                onAsk={() => setAsked(asked === result.key ? null : result.key)}
              />
            ))}
          </div>
          {wanted !== undefined && (
            <>
              <ShownWorking entryId={entry.id} runId={run.id} result={wanted} />
              {entry.kind === 'calculation' && (
                <DrawnCheck entryId={entry.id} runId={run.id} result={wanted} />
              )}
              {wanted.halfWidth !== null && (
                <Budget entryId={entry.id} runId={run.id} result={wanted} unit={unitOf(entry, wanted)} />
              )}
              <RunValues entryId={entry.id} resultKey={wanted.key} unit={unitOf(entry, wanted)} />
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
function MainOf({ entry, outcome }: { entry: Entry; outcome: Extract<ShownOutcome, { kind: 'results' }> }) {
  const main = outcome.results.find((result) => result.main);
  if (main === undefined) return null;
  return (
    <div className="results">
      <span className="name main">{main.name}</span>
      <span className="value main" data-result={main.key}>
        <ResultText result={main} unit={unitOf(entry, main)} />
      </span>
    </div>
  );
}

function Notes({ notes }: { notes: string[] }) {
  return (
    <>
      {notes.map((note) => (
        <p key={note} className="note">
          {written(note)}
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

/** The unit that a formula was told to come out in, or that somebody chose, or else one that reads well. */
function unitOf(entry: Entry, result: ShownResult): Unit {
  const isGiven = entry.kind === 'calculation' && entry.unit !== '';
  return unitShown(result, entry.shownIn?.[result.key] ?? (isGiven ? ucumCode(result.unit) : undefined));
}

interface PairProps {
  entry: Entry;
  result: ShownResult;
  isAsked: boolean;
  onAsk: () => void;
}

/** One result of an entry; its number opens how it was worked out and what its uncertainty is made of. */
function Pair({ entry, result, isAsked, onAsk }: PairProps) {
  const session = useSession();
  const choose = (code: string | null) => {
    const others = Object.fromEntries(
      Object.entries(entry.shownIn ?? {}).filter(([key]) => key !== result.key),
    );
    session.changeEntry(entry.id, { shownIn: code === null ? others : { ...others, [result.key]: code } });
  };
  return (
    <ResultRow
      name={result.name}
      resultKey={result.key}
      isMain={result.main}
      result={result}
      unit={unitOf(entry, result)}
      isUnitChosen={entry.shownIn?.[result.key] !== undefined}
      onUnit={choose}
      opens={result.halfWidth === null && result.isWorkedOut !== true ? null : whatOpens(result)}
      isOpen={isAsked}
      onOpen={onAsk}
    />
  );
}

interface OtherRunsProps extends RunOutcomes {
  entry: Entry;
  /** What is said of the run in front, whose units all rows share. */
  like: ShownOutcome | undefined;
}

function OtherRuns({ entry, runs, outcome, like }: OtherRunsProps) {
  const [first] = runs;
  const mainOf = (of: ShownOutcome | undefined) =>
    of?.kind === 'results' ? of.results.find((result) => result.main) : undefined;
  const main = mainOf(outcome);
  return (
    <div data-run={first.number}>
      <LineSample style={first.style} width={20} />
      <span className="run-name">{runs.length === 1 ? first.name : `${runs.length} runs`}</span>
      {outcome?.kind === 'refused' && (
        <span className={`sentence-small ${outcome.lacks === undefined ? '' : 'quiet'}`}>
          {written(outcome.sentence)}
        </span>
      )}
      {main !== undefined && (
        <span className="mono" data-result={main.key}>
          <ResultText result={main} unit={unitOf(entry, mainOf(like) ?? main)} />
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
            r({results[j].name}, {results[i].name}) = {fixedText(value, 3)}
          </div>
        )),
      )}
    </div>
  );
}
