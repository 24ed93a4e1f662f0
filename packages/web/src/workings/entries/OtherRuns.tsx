import { type Entry } from '@heuristor/core';
import { LineSample } from '../../runs/LineSample';
import { type SeenRun } from '../../runs/seenRun';
import { ResultText } from '../../ui/ResultText';
import { UnitText } from '../../ui/UnitText';
import { written } from '../../ui/numberText';
import { type ShownOutcome } from '../../workers/protocol';
import { mainOf, shownUnitOf } from './shownUnit';

/** So many values stand in one row; of more, the row says how many. */
const mostInRow = 8;

export interface RunOutcome {
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

interface Props {
  entry: Entry;
  rest: readonly RunOutcome[];
  /** What is said of the run in front, whose units all share. */
  like: ShownOutcome | undefined;
}

/** What an entry says of the other runs, a row each. */
export function OtherRuns({ entry, rest, like }: Props) {
  return (
    <div className="other-runs">
      {grouped(rest).map(({ runs, outcome }) => (
        <RunsRow key={runs[0].id} entry={entry} runs={runs} outcome={outcome} like={like} />
      ))}
    </div>
  );
}

/** The values of the other runs in one row, each with the line of its run; what is behind them unfolds. */
export function OtherRunsInRow({ entry, rest, like }: Props) {
  const main = mainOf(like);
  const valued = rest.flatMap(({ run, outcome }) => {
    const result = mainOf(outcome);
    return result === undefined ? [] : [{ run, result }];
  });
  if (valued.length === 0) return null;
  const unit = shownUnitOf(entry, main ?? valued[0].result);
  const seen = valued.slice(0, mostInRow);
  return (
    <div className="other-runs in-row">
      {seen.map(({ run, result }) => (
        <span key={run.id} data-run={run.number} title={run.name}>
          <LineSample style={run.style} width={16} />
          <span className="visually-hidden">{run.name}: </span>
          <span className="mono" data-result={result.key}>
            <ResultText result={result} unit={unit} isBare />
          </span>
        </span>
      ))}
      {valued.length > seen.length && <span>and {valued.length - seen.length} more</span>}
      <UnitText unit={unit} />
    </div>
  );
}

interface RowProps extends RunOutcomes {
  entry: Entry;
  /** What is said of the run in front, whose units all rows share. */
  like: ShownOutcome | undefined;
}

function RunsRow({ entry, runs, outcome, like }: RowProps) {
  const [first] = runs;
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
          <ResultText result={main} unit={shownUnitOf(entry, mainOf(like) ?? main)} />
        </span>
      )}
    </div>
  );
}
