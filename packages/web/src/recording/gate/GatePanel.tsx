import { type CSSProperties, useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useFrontRun, usePicture } from '../../investigation/context';
import { type GateSetting, beamsOfRuns, gateSetting, notTyped } from './gate';
import { presentRuns, recordingRun } from '../../runs/runs';
import { UnitText } from '../../ui/UnitText';
import { useQuantities } from '../../sensors/useQuantities';
import { useShown } from '../../workings/useShown';
import { type PassColumn, PassValue } from './PassValue';
import { Passes } from './Passes';
import { WhatPasses } from './WhatPasses';
import { writeResult, written } from '../../ui/numberText';

/** What a gate has seen: the last pass in large digits, all passes in a table, and what it is that passes. */
export function GatePanel() {
  const quantities = useQuantities();
  const runs = useDocuments((documents) => documents.runs);
  const live = quantities.filter(({ stream }) => stream.edges?.of === 'beam');
  const beams = useMemo(
    () => [...new Set([...live.map(({ key }) => key), ...beamsOfRuns(presentRuns(runs))])],
    [live, runs],
  );
  if (beams.length === 0) return null;
  return (
    <section className="gate" aria-label="Gate">
      <WhatPasses beams={beams} />
      <Seen isConnected={live.length > 0} />
    </section>
  );
}

function Seen({ isConnected }: { isConnected: boolean }) {
  const workings = useDocuments((documents) => documents.workings);
  const setting = useMemo(() => gateSetting(workings), [workings]);
  const front = useFrontRun();
  const isRecording = useDocuments(({ runs }) => recordingRun(runs) !== undefined);
  const outcomes = usePicture(
    useShallow((picture) => setting?.entries.map(({ id }) => picture.outcomes[front?.id ?? '']?.[id]) ?? []),
  );
  useShown('inFront', setting?.entries.map(({ id }) => id) ?? []);
  if (setting === null) return null;
  const columns = setting.entries.flatMap(({ id, name }, i): PassColumn[] => {
    const outcome = outcomes[i];
    return outcome?.kind === 'series' && outcome.passes !== undefined
      ? [{ id, name, unit: outcome.unit, passes: outcome.passes, isAveraged: isAveraged(setting, i) }]
      : [];
  });
  const refused = outcomes.find((outcome) => outcome?.kind === 'refused');
  const isEmpty = columns.every(({ passes }) => passes.values.length + passes.leftOut.length === 0);
  if (setting.length?.value === notTyped)
    return (
      <p className="gate-waiting" role="status">
        Measure the {setting.passage.length?.called} and type it above: every value follows from it. Passes
        are taken meanwhile.
      </p>
    );
  if (refused?.kind === 'refused' && front !== undefined)
    return <p className="refused">{written(refused.sentence)}</p>;
  if (front === undefined || isEmpty)
    return (
      <p className="gate-waiting" role="status">
        {isRecording
          ? 'Nothing has passed yet. Every pass is taken until the run ends.'
          : isConnected
            ? 'Press Record, then let it pass: every pass is taken until the run ends.'
            : 'This run has no passes.'}
      </p>
    );
  return (
    <div className="gate-seen">
      <LastPass columns={columns} />
      <Passes columns={columns} />
    </div>
  );
}

const isAveraged = ({ passage, entries }: GateSetting, place: number): boolean =>
  passage.entries.find(({ name }) => name === entries[place].name)?.isAveraged ?? true;

/** The last pass, for the back of the room. */
function LastPass({ columns }: { columns: readonly PassColumn[] }) {
  const [first, ...others] = columns.filter(({ passes }) => passes.values.length > 0);
  if (first === undefined) return <p className="gate-waiting">No pass counts; the table says why.</p>;
  return (
    <div className="last-pass" aria-live="polite">
      <LargeDigits column={first} />
      {others.map((column) => (
        <div key={column.id} className="quiet">
          {column.name} = <LastValue column={column} />
        </div>
      ))}
    </div>
  );
}

/** The value large enough for the back of the room, what it may be off by beside it. */
function LargeDigits({ column: { name, passes, unit } }: { column: PassColumn }) {
  const last = passes.values.length - 1;
  const [value, uncertainty] = [passes.values[last], passes.uncertainties[last]];
  const written = writeResult(value, uncertainty > 0 ? uncertainty : null);
  return (
    <div className="large-digits" data-testid="last-pass">
      <span className="of">{name}</span>
      <span className="number" style={{ '--digits': written.value.length } as CSSProperties}>
        {written.value}
      </span>
      <span className="beside">
        {written.uncertainty !== null && <span>± {written.uncertainty}</span>}
        <span>
          {written.exponent !== 0 && (
            <>
              10<sup className="power">{String(written.exponent).replace('-', '−')}</sup>{' '}
            </>
          )}
          <UnitText unit={unit} />
        </span>
      </span>
    </div>
  );
}

function LastValue({ column: { passes, unit } }: { column: PassColumn }) {
  const last = passes.values.length - 1;
  return <PassValue value={passes.values[last]} uncertainty={passes.uncertainties[last]} unit={unit} />;
}
