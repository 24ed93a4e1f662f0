import { type PaceTarget } from '@heuristor/contracts';
import { type PacePoint, axisLabel, parseUnit, simplifiedTo } from '@heuristor/core';
import { type PointerEvent, useRef, useState } from 'react';
import { Button, Form, Modal } from 'react-bootstrap';
import { typedPoints, writtenPoints } from './drawnLine';
import { type Quantity } from '../../sensors/sensors';
import { QuantityField } from '../../ui/QuantityField';
import { shortText } from '../../ui/numberText';

const [width, height] = [640, 300];
const margin = { left: 56, right: 12, top: 12, bottom: 34 };
const [plotWidth, plotHeight] = [width - margin.left - margin.right, height - margin.top - margin.bottom];
const mostPoints = 40;
const usualSeconds = 15;
/** Points closer together than this, in seconds, are one. */
const finest = 0.1;

interface Props {
  quantity: Quantity;
  room: { low: number; high: number };
  /** The line that stands, to begin with. */
  before: PaceTarget | null;
  /** Null where nobody wants it. */
  onDone: (target: PaceTarget | null) => void;
}

/** A line drawn with the pointer, or typed point by point. */
export function DrawLine({ quantity, room, before, onDone }: Props) {
  const { key, channel } = quantity;
  const [seconds, setSeconds] = useState(before?.points.at(-1)?.t ?? usualSeconds);
  const [points, setPoints] = useState<PacePoint[]>([...(before?.points ?? [])]);
  const [text, setText] = useState(writtenPoints(points));
  const [wrong, setWrong] = useState<string | null>(null);
  const drawing = useRef<PacePoint[] | null>(null);
  const plot = useRef<SVGSVGElement>(null);
  const span = room.high - room.low;
  const [low, high] = [room.low - span * 0.1, room.high + span * 0.1];
  const x = (t: number) => margin.left + (t / seconds) * plotWidth;
  const y = (value: number) => margin.top + ((high - value) / (high - low)) * plotHeight;
  const at = (event: PointerEvent): PacePoint => {
    const matrix = plot.current?.getScreenCTM();
    const place = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix?.inverse());
    const share = Math.min(Math.max((place.x - margin.left) / plotWidth, 0), 1);
    const up = Math.min(Math.max((place.y - margin.top) / plotHeight, 0), 1);
    return { t: Number((share * seconds).toFixed(2)), value: Number((high - up * (high - low)).toFixed(3)) };
  };
  const put = (wanted: PacePoint[]) => {
    setPoints(wanted);
    setText(writtenPoints(wanted));
    setWrong(null);
  };
  const onMove = (event: PointerEvent) => {
    const { current } = drawing;
    if (current === null) return;
    const point = at(event);
    const last = current[current.length - 1];
    // A line goes on in time; a hand that goes back draws nothing.
    if (point.t - last.t < finest) return;
    current.push(point);
    put([...current]);
  };
  const onUp = () => {
    const { current } = drawing;
    drawing.current = null;
    if (current !== null && current.length > 1) put(simplifiedTo(current, mostPoints, 0.01 * span));
  };
  const ticks = Array.from({ length: 5 }, (_, i) => i / 4);
  return (
    <Modal show centered size="lg" onHide={() => onDone(null)} aria-label="Draw a line">
      <Modal.Header closeButton>
        <Modal.Title as="h2">Draw a line for {channel.symbol}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <div className="draw-head">
          <span>Draw from the left to the right. It lasts</span>
          <QuantityField
            label="Length of the line"
            value={seconds}
            unit="s"
            check={(value) => (value >= 2 && value <= 600 ? null : 'From 2 s to 10 minutes.')}
            onCommit={(value) => {
              put(points.map((point) => ({ ...point, t: Number(((point.t * value) / seconds).toFixed(2)) })));
              setSeconds(value);
            }}
          />
        </div>
        <svg
          ref={plot}
          viewBox={`0 0 ${width} ${height}`}
          className="draw-plot"
          role="img"
          aria-label="Plot to draw on"
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            drawing.current = [{ ...at(event), t: 0 }];
            put(drawing.current);
          }}
          onPointerMove={onMove}
          onPointerUp={onUp}
          onPointerCancel={onUp}
        >
          {ticks.map((share) => (
            <g key={share} className="draw-grid">
              <line
                x1={x(share * seconds)}
                x2={x(share * seconds)}
                y1={margin.top}
                y2={height - margin.bottom}
              />
              <line
                x1={margin.left}
                x2={width - margin.right}
                y1={y(low + share * (high - low))}
                y2={y(low + share * (high - low))}
              />
              <text x={x(share * seconds)} y={height - 14} textAnchor="middle">
                {shortText(share * seconds, 3)}
              </text>
              <text x={margin.left - 6} y={y(low + share * (high - low)) + 4} textAnchor="end">
                {shortText(low + share * (high - low), 3)}
              </text>
            </g>
          ))}
          <text x={margin.left + 8} y={margin.top + 16} className="draw-label">
            {axisLabel(channel.symbol, parseUnit(channel.unit))}
          </text>
          <text x={width - margin.right} y={height - 2} textAnchor="end" className="draw-label">
            t / s
          </text>
          <polyline
            className="draw-line"
            points={points.map((point) => `${x(point.t)},${y(point.value)}`).join(' ')}
          />
          {points.length <= mostPoints &&
            points.map((point) => (
              <circle key={point.t} cx={x(point.t)} cy={y(point.value)} r="4" className="draw-point" />
            ))}
        </svg>
        <Form.Label htmlFor="line-points" className="mt-2">
          Its points: time and value, one pair a line
        </Form.Label>
        <Form.Control
          id="line-points"
          as="textarea"
          rows={3}
          className="mono"
          value={text}
          isInvalid={wrong !== null}
          onChange={(event) => {
            setText(event.target.value);
            const read = typedPoints(event.target.value, seconds);
            if (typeof read === 'string') setWrong(read);
            else {
              setWrong(null);
              setPoints(read);
            }
          }}
        />
        <Form.Control.Feedback type="invalid">{wrong}</Form.Control.Feedback>
      </Modal.Body>
      <Modal.Footer>
        <Button variant="plain" onClick={() => onDone(null)}>
          Cancel
        </Button>
        <Button
          variant="act"
          disabled={points.length < 2 || wrong !== null}
          onClick={() =>
            onDone({ quantity: key, of: 'reading', unit: channel.unit, points, made: { kind: 'drawn' } })
          }
        >
          Follow this line
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
