import { axisLabel, parseUnit } from '@heuristor/core';
import { Table } from 'react-bootstrap';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useFrontRun, usePicture, useInvestigation } from '../../investigation/context';
import { targetOf } from './pace';
import { shownRuns } from '../../runs/runs';
import { ResultText } from '../../ui/ResultText';
import { UnitText } from '../../ui/UnitText';
import { type ShownOutcome, type ShownResult } from '../../workers/protocol';
import { LiveReading } from '../../sensors/LiveReading';
import { useQuantities } from '../../sensors/useQuantities';
import { useShown } from '../../workings/useShown';
import { shortText } from '../../ui/numberText';

/** How closely the line was followed: the last try in large digits, all tries, and the slopes part by part. */
export function PacePanel() {
  const way = useDocuments(({ plan }) => plan.way);
  const front = useFrontRun();
  const hasTarget = targetOf(front) !== null;
  if (way !== 'pace' && !(way === 'time' && hasTarget)) return null;
  return (
    <section className="gate" aria-label="Line">
      {way === 'pace' && <Start />}
      {hasTarget && <Tries />}
    </section>
  );
}

/** Where to stand before it begins. */
function Start() {
  const target = useDocuments(({ plan }) => plan.pace);
  const isIdle = useDocuments(({ recorder }) => recorder.phase === 'idle' || recorder.phase === 'countdown');
  const quantity = useQuantities().find(({ key }) => key === target?.quantity);
  if (target === null)
    return (
      <p className="gate-waiting">
        Make a line, draw one, or take one from a run. Then press Record and follow it.
      </p>
    );
  if (!isIdle || quantity === undefined || target.of === 'speed') return null;
  const [{ value }] = target.points;
  return (
    <div className="pace-start">
      <span>
        Begin at{' '}
        <strong className="mono">
          {shortText(value, 3)} <UnitText unit={parseUnit(target.unit)} />
        </strong>
        ; now at
      </span>
      <LiveReading
        handle={quantity.stream.handle}
        index={quantity.index}
        channel={quantity.channel}
        rate={quantity.stream.liveRate}
      />
    </div>
  );
}

const resultsIn = (outcome: ShownOutcome | undefined): ShownResult[] =>
  outcome?.kind === 'results' ? outcome.results : [];

function Tries() {
  const session = useInvestigation();
  const front = useFrontRun();
  const entries = useDocuments(({ workings }) => workings.entries);
  const close = entries.find(({ kind }) => kind === 'closeness')?.id ?? '';
  const slopes = entries.find(({ kind }) => kind === 'paceSlopes')?.id ?? '';
  const runs = useDocuments(useShallow((documents) => shownRuns(documents.runs)));
  const outcomes = usePicture(useShallow((picture) => runs.map(({ id }) => picture.outcomes[id]?.[close])));
  const own = usePicture((picture) => picture.outcomes[front?.id ?? '']?.[slopes]);
  useShown('everywhere', [close, slopes]);
  const tries = runs.flatMap((run, i) => {
    const rms = resultsIn(outcomes[i]).find(({ key }) => key === 'rms');
    return rms === undefined ? [] : [{ run, rms }];
  });
  const mine = tries.find(({ run }) => run.id === front?.id);
  if (mine === undefined) return null;
  const best = Math.min(...tries.map(({ rms }) => rms.value));
  return (
    <div className="gate-seen low">
      <div className="last-pass">
        <div className="quiet">rms difference</div>
        <div className="large-digits" data-testid="closeness">
          <span className="number">
            <ResultText result={{ ...mine.rms, unit: [] }} />
          </span>
          <span className="beside">
            <UnitText unit={mine.rms.unit} />
          </span>
        </div>
      </div>
      <div className="passes narrow" tabIndex={0} role="region" aria-label="Tries">
        <Table size="sm">
          <thead>
            <tr>
              <th scope="col">try</th>
              <th scope="col">rms difference</th>
            </tr>
          </thead>
          <tbody>
            {tries.map(({ run, rms }) => (
              <tr key={run.id} className={run.id === front?.id ? 'front' : ''}>
                <td>
                  <button
                    type="button"
                    className="plain-link"
                    onClick={() => session.viewing.bringToFront(run.id)}
                  >
                    {run.name}
                  </button>
                </td>
                <td>
                  {rms.value === best && tries.length > 1 && <span className="tag">closest</span>}{' '}
                  <ResultText result={rms} />
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <Slopes results={resultsIn(own)} />
    </div>
  );
}

/** Slope by slope against what it was to be. */
function Slopes({ results }: { results: readonly ShownResult[] }) {
  const parts = results.flatMap((own) => {
    const target = results.find(({ key }) => key === own.key.replace('own', 'target'));
    return own.key.startsWith('own') && target !== undefined ? [{ own, target }] : [];
  });
  if (parts.length === 0) return null;
  const [{ own: first }] = parts;
  return (
    <div className="passes" tabIndex={0} role="region" aria-label="Slopes">
      <Table size="sm">
        <thead>
          <tr>
            <th scope="col">part</th>
            <th scope="col">line</th>
            <th scope="col">{axisLabel('own slope', first.unit)}</th>
          </tr>
        </thead>
        <tbody>
          {parts.map(({ own, target }, i) => (
            <tr key={own.key}>
              <td>{i + 1}</td>
              <td>
                <ResultText result={{ ...target, halfWidth: null, roundTo: own.halfWidth, unit: [] }} />
              </td>
              <td>
                <ResultText result={{ ...own, unit: [] }} />
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  );
}
