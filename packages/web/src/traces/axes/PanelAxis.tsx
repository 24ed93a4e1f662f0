import { memo } from 'react';
import { Form } from 'react-bootstrap';
import { useSession, useView, useWithZero } from '../../investigation/context';
import { usePresenter } from '../../ui/presenter';
import { type Side } from '../drawn';
import { marked, usable } from './axisScale';
import { axisKey } from './scaling';
import { withLogarithm } from '../pages/pages';
import { AxisEditor } from './AxisEditor';
import { AxisGrip } from './AxisGrip';
import { axisHeight, headHeight, plotLeft } from '../geometry';

interface Props {
  traceKey: string;
  side: Side;
  axis: { symbol: string; unit: string; from: number; to: number; isLogarithmic: boolean };
  /** Residuals have no axis to choose. */
  isChosen: boolean;
  isBottom: boolean;
}

/** A vertical axis of a trace, to be held and typed. */
export const PanelAxis = memo(function PanelAxis({ traceKey, side, axis, isBottom, isChosen }: Props) {
  const session = useSession();
  // Another size of type makes other axes.
  usePresenter((state) => state.large);
  const key = axisKey(traceKey, side);
  const { isLogarithmic } = axis;
  const set = usable(
    useView(({ scales }) => scales[key]),
    isLogarithmic,
  );
  const isSet = set != null;
  const reach = useView((view) => view.reach);
  const withZero = useWithZero();
  // What was set a moment ago is not drawn yet.
  const range = { ...(set ?? { from: axis.from, to: axis.to }), ...marked(isLogarithmic) };
  const width = plotLeft();
  const bottom = isBottom ? axisHeight() : 0;
  return (
    <AxisGrip
      label={`Axis of ${axis.symbol}`}
      range={range}
      isVertical
      className={side}
      style={{ top: headHeight(), bottom, width: side === 'left' ? width - 22 : width - 2 }}
      onRange={(next) => session.scale(key, next)}
      onAutomatic={() => session.scale(key, null)}
    >
      {() => (
        <AxisEditor
          unit={axis.unit}
          range={range}
          isAutomatic={!isSet}
          onRange={(next) => session.scale(key, next)}
          onAutomatic={() => session.scale(key, null)}
          automaticWord="Follow the data"
        >
          {isChosen && (
            <Form.Check
              type="checkbox"
              id={`logarithm-${key}`}
              label="logarithmic"
              checked={isLogarithmic}
              onChange={() =>
                session.changePage((page, runs) => withLogarithm(page, runs, traceKey, side, !isLogarithmic))
              }
            />
          )}
          <fieldset className="axis-reach" disabled={isSet}>
            <legend>Axes that follow the data show</legend>
            {(['shown', 'all'] as const).map((choice) => (
              <Form.Check
                key={choice}
                type="radio"
                id={`reach-${key}-${choice}`}
                name={`reach-${key}`}
                label={choice === 'shown' ? 'what is in view' : 'all of the data'}
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
});
