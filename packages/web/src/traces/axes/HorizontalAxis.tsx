import { printedUnit } from '@heuristor/core';
import { memo } from 'react';
import { Button, Form } from 'react-bootstrap';
import { useLaidRegions, usePicture, useSession, useShownPage, useView } from '../../investigation/context';
import { usePresenter } from '../../ui/presenter';
import { AxisEditor } from './AxisEditor';
import { AxisGrip } from './AxisGrip';
import { marked, usable } from './axisScale';
import { withLogarithmAcross } from '../pages/pages';
import { axisHeight, plotLeft } from '../geometry';

/** The shared horizontal axis, to be held and typed. */
export const HorizontalAxis = memo(function HorizontalAxis({ roomRight }: { roomRight: number }) {
  const session = useSession();
  // Another size of type makes another axis.
  usePresenter((state) => state.large);
  const frame = usePicture((picture) => picture.frame);
  const set = usable(
    useView((view) => view.sight),
    frame?.sight.isLogarithmic,
  );
  const isFramed = set === null;
  const { horizontal: along, logarithmic } = useShownPage();
  const [isTime, isLogarithmic] = [along === 't', logarithmic === true];
  if (frame === null) return null;
  const { horizontal } = frame;
  // What was set a moment ago is not drawn yet.
  const sight = { ...(set ?? frame.sight), ...marked(frame.sight.isLogarithmic) };
  return (
    <AxisGrip
      label={`Axis of ${horizontal.symbol}`}
      range={sight}
      isVertical={false}
      className="bottom"
      style={{ left: plotLeft(), right: roomRight, height: axisHeight() - 2 }}
      onRange={(next) => session.look(next)}
      onAutomatic={() => session.look(null)}
    >
      {(close) => (
        <AxisEditor
          unit={printedUnit(horizontal.unit)}
          range={sight}
          isAutomatic={isFramed}
          onRange={(next) => session.look(next)}
          onAutomatic={() => session.look(null)}
          automaticWord="All of the data"
        >
          {!isTime && (
            <Form.Check
              type="checkbox"
              id="logarithm-across"
              label="logarithmic"
              checked={isLogarithmic}
              onChange={() => session.changePage((page) => withLogarithmAcross(page, !isLogarithmic))}
            />
          )}
          <OnlyRegions close={close} />
        </AxisEditor>
      )}
    </AxisGrip>
  );
});

/** The regions of the shown axis, each to be looked at alone. */
function OnlyRegions({ close }: { close: () => void }) {
  const session = useSession();
  const regions = useLaidRegions();
  if (regions.length === 0) return null;
  return (
    <div className="axis-regions">
      <span>Only region</span>
      {regions.map(({ id, letter, start, end }) => (
        <Button
          key={id}
          variant="plain"
          onClick={() => {
            session.looking.only({ from: start, to: end });
            close();
          }}
        >
          {letter}
        </Button>
      ))}
    </div>
  );
}
