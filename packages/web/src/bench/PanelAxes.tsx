import { printedUnit } from '@heuristor/core';
import { Form } from 'react-bootstrap';
import { useDocuments, useSession, useView } from '../session/context';
import { usePresenter } from '../stores/presenter';
import { type DrawnTrace, type Side } from '../workers/compose';
import { axisKey } from '../workers/scaling';
import { AxisEditor } from './AxisEditor';
import { AxisGrip } from './AxisGrip';
import { axisHeight, plotLeft } from './geometry';

interface Props {
  trace: DrawnTrace;
  isBottom: boolean;
}

/** The vertical axes of a trace, to be held and typed. */
export function PanelAxes({ trace, isBottom }: Props) {
  // Another size of type makes other axes.
  usePresenter((state) => state.large);
  const bottom = isBottom ? axisHeight() : 0;
  return (
    <>
      <PanelAxis trace={trace} side="left" bottom={bottom} />
      {trace.right !== null && <PanelAxis trace={trace} side="right" bottom={bottom} />}
    </>
  );
}

function PanelAxis({ trace, side, bottom }: { trace: DrawnTrace; side: Side; bottom: number }) {
  const session = useSession();
  const key = axisKey(trace.key, side);
  const set = useView(({ scales }) => scales[key]);
  const isSet = set !== undefined;
  const reach = useView((view) => view.reach);
  const isSpot = useDocuments(({ plan }) => plan.way === 'spot');
  const withZero = useView((view) => view.withZero) ?? isSpot;
  const axis = side === 'right' && trace.right !== null ? trace.right : trace;
  // What was set a moment ago is not drawn yet.
  const range = set ?? { from: axis.low, to: axis.high };
  const width = plotLeft();
  return (
    <AxisGrip
      label={`Axis of ${axis.symbol}`}
      range={range}
      isVertical
      className={side}
      style={{ bottom, width: side === 'left' ? width - 22 : width - 2 }}
      onRange={(next) => session.scale(key, next)}
      onAutomatic={() => session.scale(key, null)}
    >
      {() => (
        <AxisEditor
          unit={printedUnit(axis.unit)}
          range={range}
          isAutomatic={!isSet}
          onRange={(next) => session.scale(key, next)}
          onAutomatic={() => session.scale(key, null)}
          automaticWord="Follow the data"
        >
          <fieldset className="axis-reach" disabled={isSet}>
            <legend>Following the data, all axes hold</legend>
            {(['shown', 'all'] as const).map((choice) => (
              <Form.Check
                key={choice}
                type="radio"
                id={`reach-${key}-${choice}`}
                name={`reach-${key}`}
                label={choice === 'shown' ? 'what is in sight' : 'all of the data'}
                checked={reach === choice}
                onChange={() => session.looking.change({ reach: choice })}
              />
            ))}
            <Form.Check
              type="checkbox"
              id={`zero-${key}`}
              label="and their zero"
              checked={withZero}
              onChange={() => session.looking.change({ withZero: !withZero })}
            />
          </fieldset>
        </AxisEditor>
      )}
    </AxisGrip>
  );
}
