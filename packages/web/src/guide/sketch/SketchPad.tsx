import { type GuideItemOf } from '@heuristor/contracts';
import { Chart } from 'chart.js';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { sentenceOf } from '../../api/client';
import { useInvestigationDocuments } from '../../investigation/context';
import { tickText } from '../../trials/chartOf';
import { countedRuns } from '../../trials/counted';
import { TextField } from '../../ui/TextField';
import { useLook } from '../../ui/look';
import { type Point, pointsText, typedPoints, withStroke } from './drawn';
import { measuredIn } from './measured';
import { showOn, sketchConfiguration } from './sketchChart';

interface Props {
  item: GuideItemOf<'sketch'>;
  points: readonly Point[];
  mayDraw: boolean;
  onDraw: (points: readonly Point[]) => void;
}

/** Empty axes on which a prediction is drawn by hand; what was measured can be laid over it. */
export function SketchPad({ item, points, mayDraw, onDraw }: Props) {
  const { across, upright } = item;
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart | null>(null);
  const [draft, setDraft] = useState<readonly Point[] | null>(null);
  const last = useRef<Point | null>(null);
  const [measured, setMeasured] = useState<readonly Point[]>([]);
  const look = useLook();
  const seen = draft ?? points;
  useEffect(() => {
    if (canvas.current === null) return undefined;
    const made = new Chart(canvas.current, sketchConfiguration({ across, upright }));
    chart.current = made;
    return () => made.destroy();
  }, [across, upright, look]);
  useEffect(() => {
    if (chart.current !== null) showOn(chart.current, seen, measured);
  }, [seen, measured, across, upright, look]);

  const placeOf = ({ clientX, clientY }: PointerEvent): Point | null => {
    if (chart.current === null || canvas.current === null) return null;
    const box = canvas.current.getBoundingClientRect();
    const { x, y } = chart.current.scales;
    const [px, py] = [clientX - box.left, clientY - box.top];
    if (last.current === null && (px < x.left || px > x.right || py < y.top || py > y.bottom)) return null;
    return [x.getValueForPixel(px) ?? across.from, y.getValueForPixel(py) ?? upright.from];
  };
  const draw = (event: PointerEvent) => {
    const place = placeOf(event);
    if (place === null) return;
    const from = last.current ?? place;
    last.current = place;
    setDraft((before) => withStroke(before ?? points, from, place, { across, upright }));
  };
  const lift = () => {
    if (last.current === null) return;
    last.current = null;
    if (draft !== null) onDraw(draft);
    setDraft(null);
  };
  return (
    <div className="sketch">
      <div className="sketch-pad">
        <canvas
          ref={canvas}
          role="img"
          aria-label={
            seen.length === 0
              ? `Empty axes: ${upright.title} against ${across.title}`
              : `A sketch of ${upright.title} against ${across.title} from ${tickText(seen[0][0])} to ${tickText(seen[seen.length - 1][0])}`
          }
          onPointerDown={(event) => {
            if (!mayDraw || event.button !== 0) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            draw(event);
          }}
          onPointerMove={(event) => last.current !== null && draw(event)}
          onPointerUp={lift}
          onPointerCancel={lift}
        />
        {mayDraw && seen.length === 0 && <span className="sketch-hint">Draw here</span>}
      </div>
      <div className="field-row">
        {mayDraw && (
          <Button variant="plain" disabled={points.length === 0} onClick={() => onDraw([])}>
            Clear
          </Button>
        )}
        {mayDraw && item.over !== '' && points.length > 0 && <LayOver item={item} onLaid={setMeasured} />}
      </div>
      {mayDraw && (
        <details>
          <summary className="quiet small">Type its points</summary>
          <TextField
            label="Points of the sketch"
            placeholder="0 0; 1 0.5; 2 0.2"
            value={pointsText(points)}
            maxLength={8000}
            check={(text) => faultOf(() => typedPoints(text, { across, upright }))}
            onCommit={(text) => onDraw(typedPoints(text, { across, upright }))}
          />
        </details>
      )}
    </div>
  );
}

function faultOf(read: () => unknown): string | null {
  try {
    read();
    return null;
  } catch (error) {
    return sentenceOf(error);
  }
}

/** The choice of a run whose readings lie over the sketch. */
function LayOver({ item, onLaid }: { item: Props['item']; onLaid: (points: readonly Point[]) => void }) {
  const runs = countedRuns(useInvestigationDocuments((documents) => documents.runs));
  const [chosen, setChosen] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const run = runs.find(({ id }) => id === chosen);
  const { over, across, upright } = item;
  useEffect(() => {
    let isWanted = true;
    setFault(null);
    if (run === undefined) {
      onLaid([]);
      return undefined;
    }
    measuredIn(run, over, { across: across.unit, upright: upright.unit }).then(
      (points) => isWanted && onLaid(points),
      (error: unknown) => isWanted && setFault(sentenceOf(error)),
    );
    return () => {
      isWanted = false;
    };
    // A run that is fetched again is the same run.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [run?.id, run?.state, over, across, upright, onLaid]);
  if (runs.length === 0) return null;
  return (
    <>
      <Form.Select
        size="sm"
        aria-label="Lay what was measured over the sketch"
        value={chosen}
        onChange={({ target }) => setChosen(target.value)}
      >
        <option value="">Without what was measured</option>
        {runs.map(({ id, name, number }) => (
          <option key={id} value={id}>
            Over run {number} · {name}
          </option>
        ))}
      </Form.Select>
      {fault !== null && <p className="fault">{fault}</p>}
    </>
  );
}
