import { type Beginning, longestKept } from '@heuristor/contracts';
import { Form } from 'react-bootstrap';
import { useInvestigation } from '../../investigation/context';
import { type Quantity } from '../../sensors/sensors';
import { QuantityField } from '../../ui/QuantityField';
import { LevelEditor, usualLevel } from './LevelEditor';
import { SwitchField } from './SwitchField';
import { Way } from './Way';

interface Props {
  begin: Beginning;
  quantities: readonly Quantity[];
}

/** How a run begins. */
export function BeginEditor({ begin, quantities }: Props) {
  const session = useInvestigation();
  const change = (wanted: Beginning) => void session.plan.change({ begin: wanted });
  const levels = quantities.filter(({ stream }) => stream.sampling !== 'events');
  const switches = quantities.filter(({ stream }) => stream.sampling === 'events');
  return (
    <div className="editor-rows">
      <Way
        of="begin"
        way="pressed"
        label="When pressed"
        chosen={begin.kind === 'at-once'}
        onChoose={() => change({ kind: 'at-once' })}
      />
      <div className="editor-row">
        <Way
          of="begin"
          way="countdown"
          label="After a countdown"
          chosen={begin.kind === 'countdown'}
          onChoose={() => change({ kind: 'countdown', seconds: 3 })}
        />
        {begin.kind === 'countdown' && (
          <QuantityField
            label="Length of the countdown"
            value={begin.seconds}
            unit="s"
            check={(seconds) => (seconds >= 1 && seconds <= 600 ? null : 'From 1 s to 10 minutes.')}
            onCommit={(seconds) => change({ kind: 'countdown', seconds })}
          />
        )}
      </div>
      <Way
        of="begin"
        way="level"
        label="By itself, when a reading crosses a level"
        chosen={begin.kind === 'level'}
        disabled={levels.length === 0}
        onChoose={() => change({ kind: 'level', level: usualLevel(levels[0]), keptSeconds: 0.2 })}
      />
      {begin.kind === 'level' && (
        <>
          <LevelEditor
            of="beginning"
            level={begin.level}
            quantities={quantities}
            onChange={(level) => change({ ...begin, level })}
          />
          <Kept seconds={begin.keptSeconds} onChange={(keptSeconds) => change({ ...begin, keptSeconds })} />
        </>
      )}
      {(switches.length > 0 || begin.kind === 'switch') && (
        <Way
          of="begin"
          way="switch"
          label="By itself, when something switches"
          chosen={begin.kind === 'switch'}
          onChoose={() => change({ kind: 'switch', quantity: switches[0].key, to: 'on', keptSeconds: 0 })}
        />
      )}
      {begin.kind === 'switch' && (
        <>
          <div className="editor-row">
            <SwitchField
              label="What switches"
              chosen={begin.quantity}
              switches={switches}
              onChange={(quantity) => change({ ...begin, quantity })}
            />
            <Form.Select
              size="sm"
              aria-label="On or off"
              value={begin.to}
              onChange={(event) => change({ ...begin, to: event.target.value === 'off' ? 'off' : 'on' })}
            >
              <option value="on">switches on</option>
              <option value="off">switches off</option>
            </Form.Select>
          </div>
          <Kept seconds={begin.keptSeconds} onChange={(keptSeconds) => change({ ...begin, keptSeconds })} />
        </>
      )}
    </div>
  );
}

function Kept({ seconds, onChange }: { seconds: number; onChange: (seconds: number) => void }) {
  return (
    <div className="editor-row">
      <span>Keep from before</span>
      <QuantityField
        label="Time kept from before"
        value={seconds}
        unit="s"
        check={(wanted) => (wanted >= 0 && wanted <= longestKept ? null : `From 0 to ${longestKept} s.`)}
        onCommit={onChange}
      />
    </div>
  );
}
