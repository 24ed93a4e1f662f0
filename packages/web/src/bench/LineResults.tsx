import { type Line, type NamedResult } from '@heuristor/core';
import { type Run } from '@heuristor/contracts';
import { frontRun, shownRuns, useBench } from '../stores/bench';
import { LineSample } from '../ui/LineSample';
import { ResultText } from '../ui/ResultText';
import { UnitText } from '../ui/UnitText';
import { type ShownOutcome } from '../workers/protocol';

/** What a line works out: in full for the run in front, in one row for each of the others. */
export function LineResults({ line, digits }: { line: Line; digits: boolean }) {
  const bench = useBench();
  const front = frontRun(bench);
  const { rendered } = bench;
  if (front === undefined || rendered === null || line.kind === 'region') return null;
  const outcome = rendered.outcomes[front.id]?.[line.id];
  const others = shownRuns(bench.runs).filter((run) => run.id !== front.id);
  return (
    <>
      {outcome !== undefined && <FrontOutcome outcome={outcome} digits={digits} />}
      {line.kind !== 'derivative' && line.kind !== 'integral' && others.length > 0 && (
        <div className="other-runs">
          {others.map((run) => (
            <OtherRun key={run.id} run={run} outcome={rendered.outcomes[run.id]?.[line.id]} />
          ))}
        </div>
      )}
    </>
  );
}

function FrontOutcome({ outcome, digits }: { outcome: ShownOutcome; digits: boolean }) {
  switch (outcome.kind) {
    case 'refused':
      return <div className="refused">{outcome.sentence}</div>;
    case 'region':
    case 'series':
      return null;
    case 'results':
      return (
        <>
          <div className="results">
            {outcome.results.map((result) => (
              <Pair key={result.key} result={result} />
            ))}
          </div>
          {outcome.notes.map((note) => (
            <p key={note} className="note">
              {note}
            </p>
          ))}
          {digits && <AllDigits outcome={outcome} />}
        </>
      );
  }
}

function Pair({ result }: { result: NamedResult }) {
  return (
    <>
      <span className={`name ${result.main ? 'main' : ''}`}>{result.name}</span>
      <span className={`value ${result.main ? 'main' : ''}`} data-result={result.key}>
        <ResultText result={result} />
      </span>
    </>
  );
}

function OtherRun({ run, outcome }: { run: Run; outcome: ShownOutcome | undefined }) {
  const main = outcome?.kind === 'results' ? outcome.results.find((result) => result.main) : undefined;
  return (
    <div data-run={run.number}>
      <LineSample style={run.style} width={20} />
      <span>{run.name}</span>
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
              <td>{standardUncertainty === null ? '' : `± ${standardUncertainty}`}</td>
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
