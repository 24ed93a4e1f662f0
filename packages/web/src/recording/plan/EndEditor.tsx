import { type Ending } from '@heuristor/contracts';
import { useInvestigation } from '../../investigation/context';
import { type Quantity } from '../../sensors/sensors';
import { NumberField } from '../../ui/NumberField';
import { QuantityField } from '../../ui/QuantityField';
import { LevelEditor, usualLevel } from './LevelEditor';
import { SwitchField } from './SwitchField';
import { Way } from './Way';

interface Props {
  end: Ending;
  quantities: readonly Quantity[];
}

const usualSeconds = 8;
const usualLimit = 60;

function lengthFault(seconds: number): string | null {
  if (!(seconds >= 0.001)) return 'A run lasts at least 0.001 s.';
  return seconds > 86_400 ? 'A run lasts at most a day, 86400 s.' : null;
}

/** How a run ends by itself. */
export function EndEditor({ end, quantities }: Props) {
  const session = useInvestigation();
  const change = (wanted: Ending) => void session.plan.change({ end: wanted });
  const levels = quantities.filter(({ stream }) => stream.sampling !== 'events');
  const switches = quantities.filter(({ stream }) => stream.sampling === 'events');
  return (
    <div className="editor-rows">
      <div className="editor-row">
        <Way
          of="end"
          way="after"
          label="After a time"
          chosen={end.kind === 'after'}
          onChoose={() => change({ kind: 'after', seconds: usualSeconds })}
        />
        {end.kind === 'after' && (
          <QuantityField
            label="Length of the run in seconds"
            value={end.seconds}
            unit="s"
            check={lengthFault}
            onCommit={(seconds) => change({ kind: 'after', seconds })}
          />
        )}
      </div>
      <Way
        of="end"
        way="level"
        label="By itself, when a reading crosses a level"
        chosen={end.kind === 'level'}
        disabled={levels.length === 0}
        onChoose={() => change({ kind: 'level', level: usualLevel(levels[0]), atMostSeconds: usualLimit })}
      />
      {end.kind === 'level' && (
        <LevelEditor
          of="end"
          level={end.level}
          quantities={quantities}
          onChange={(level) => change({ ...end, level })}
        />
      )}
      {(switches.length > 0 || end.kind === 'events') && (
        <div className="editor-row">
          <Way
            of="end"
            way="events"
            label="After a number of times that something switched on"
            chosen={end.kind === 'events'}
            onChoose={() =>
              change({ kind: 'events', quantity: switches[0].key, count: 10, atMostSeconds: usualLimit })
            }
          />
          {end.kind === 'events' && (
            <NumberField
              label="Number of times"
              value={end.count}
              check={(count) => (Number.isInteger(count) && count >= 1 ? null : 'A whole number from 1 on.')}
              onCommit={(count) => change({ ...end, count })}
            />
          )}
        </div>
      )}
      {end.kind === 'events' && (
        <SwitchField
          label="What is counted"
          chosen={end.quantity}
          switches={switches}
          onChange={(quantity) => change({ ...end, quantity })}
        />
      )}
      {(end.kind === 'level' || end.kind === 'events') && (
        <div className="editor-row">
          <span>At the latest after</span>
          <QuantityField
            label="Longest time of the run"
            value={end.atMostSeconds}
            unit="s"
            check={(seconds) => (seconds >= 0.1 ? lengthFault(seconds) : 'At least 0.1 s.')}
            onCommit={(atMostSeconds) => change({ ...end, atMostSeconds })}
          />
        </div>
      )}
      <Way
        of="end"
        way="stopped"
        label="When stopped"
        chosen={end.kind === 'stopped'}
        onChoose={() => change({ kind: 'stopped' })}
      />
    </div>
  );
}
