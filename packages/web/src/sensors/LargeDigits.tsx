import { type ResultRef, printedUnit, resultRef } from '@heuristor/core';
import { type CSSProperties, useRef } from 'react';
import { CloseButton, Dropdown } from 'react-bootstrap';
import { CheckSquare, Square } from 'react-bootstrap-icons';
import { useShallow } from 'zustand/react/shallow';
import {
  useDocuments,
  useFrontRun,
  usePicture,
  useResultNames,
  useInvestigation,
  useView,
} from '../investigation/context';
import { type Quantity } from './sensors';
import { recordingRun } from '../runs/runs';
import { LineSample } from '../runs/LineSample';
import { ResultText } from '../ui/ResultText';
import { type ShownOutcome, type ShownResult } from '../workers/protocol';
import { LiveReading } from './LiveReading';
import { useQuantities } from './useQuantities';
import { useShown } from '../workings/useShown';
import { writeResult } from '../ui/numberText';
import { FixedMenu } from '../ui/FixedMenu';
import { useFocusInside } from '../ui/useFocusInside';

/** Figures that a live reading needs at most: sign, three before and four behind the point, its unit. */
const liveFigures = 11;
/** Of so many, each still fills the width. */
const mostInOneColumn = 3;
/** With nothing chosen, so many quantities are shown. */
const usualCount = 2;

const liveKey = (key: string) => `live:${key}` as const;

/** Quantities and results in digits that fill the screen, for the last row. */
export function LargeDigits() {
  const chosen = useView(({ digits }) => digits);
  return chosen === null ? null : <OpenDigits chosen={chosen} />;
}

function OpenDigits({ chosen }: { chosen: readonly string[] }) {
  const session = useInvestigation();
  const panel = useRef<HTMLElement>(null);
  const live = useQuantities().filter(({ stream }) => stream.edges == null);
  const front = useFrontRun();
  const isRecording = useDocuments(({ runs }) => recordingRun(runs) !== undefined);
  const names = useResultNames();
  const outcomes = usePicture(
    useShallow((picture): Record<string, ShownOutcome> => picture.outcomes[front?.id ?? ''] ?? {}),
  );
  const results = Object.entries(outcomes).flatMap(([id, outcome]) =>
    outcome.kind === 'results'
      ? outcome.results.map((result) => ({ id: resultRef(id, result.key), entryId: id, result }))
      : [],
  );
  const mains = results.filter(({ result }) => result.main);
  const usual = [...live.map(({ key }) => liveKey(key)), ...mains.map(({ id }) => id)].slice(0, usualCount);
  const shown = chosen.length > 0 ? chosen : usual;
  useShown(
    'inFront',
    results.filter(({ id }) => shown.includes(id)).map(({ entryId }) => entryId),
  );
  const close = () => session.viewing.showDigits(null);
  useFocusInside(panel);
  const toggle = (id: string) => {
    const digits = shown.includes(id) ? shown.filter((other) => other !== id) : [...shown, id];
    session.viewing.showDigits(digits);
  };
  const tiles = shown.flatMap((id) => {
    const quantity = live.find(({ key }) => liveKey(key) === id);
    if (quantity !== undefined) return [<LiveTile key={id} quantity={quantity} />];
    const found = results.find((one) => one.id === id);
    return found === undefined || front === undefined
      ? []
      : [
          <ResultTile
            key={id}
            name={names[found.id] ?? found.result.name}
            result={found.result}
            style={front.style}
            run={front.name}
          />,
        ];
  });
  const columns = tiles.length > mostInOneColumn ? 2 : 1;
  return (
    <section
      ref={panel}
      className="digit-wall"
      aria-label="Large digits"
      tabIndex={-1}
      onKeyDown={(event) => {
        if (event.key === 'Escape') close();
      }}
    >
      <header>
        <Dropdown autoClose="outside">
          <Dropdown.Toggle variant="plain">Show</Dropdown.Toggle>
          <FixedMenu>
            {live.length > 0 && <Dropdown.Header>Live</Dropdown.Header>}
            {live.map(({ key, channel, device }) => (
              <Choice
                key={key}
                isOn={shown.includes(liveKey(key))}
                text={`${key} of ${device.model} ${device.code} / ${channel.unit}`}
                onPress={() => toggle(liveKey(key))}
              />
            ))}
            {results.length > 0 && <Dropdown.Header>Results of the run in front</Dropdown.Header>}
            {results.map(({ id, result }) => (
              <Choice
                key={id}
                isOn={shown.includes(id)}
                text={names[id as ResultRef] ?? result.name}
                onPress={() => toggle(id)}
              />
            ))}
          </FixedMenu>
        </Dropdown>
        <span className="quiet">Space records, Escape closes</span>
        {isRecording && <span className="recording-word">Recording</span>}
        <CloseButton aria-label="Close the large digits" onClick={close} />
      </header>
      {tiles.length === 0 ? (
        <p className="quiet">
          There is no live reading and no result yet. Connect a sensor, or work out something on a run.
        </p>
      ) : (
        <div className="digit-tiles" style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}>
          {tiles}
        </div>
      )}
    </section>
  );
}

function Choice({ isOn, text, onPress }: { isOn: boolean; text: string; onPress: () => void }) {
  return (
    <Dropdown.Item as="button" role="menuitemcheckbox" aria-checked={isOn} onClick={onPress}>
      {isOn ? <CheckSquare aria-hidden /> : <Square aria-hidden />} {text}
    </Dropdown.Item>
  );
}

/** How many figures stand side by side decides how large they are. */
const figures = (count: number): CSSProperties => ({ '--figures': count }) as CSSProperties;

function LiveTile({ quantity: { key, device, stream, channel, index } }: { quantity: Quantity }) {
  return (
    <div className="digit-tile" style={figures(liveFigures)}>
      <span className="digit-name">
        {key}{' '}
        <span className="quiet">
          {device.model} {device.code}
        </span>
      </span>
      <LiveReading handle={stream.handle} index={index} channel={channel} rate={stream.liveRate} />
    </div>
  );
}

interface ResultTileProps {
  name: string;
  result: ShownResult;
  style: number;
  run: string;
}

function ResultTile({ name, result, style, run }: ResultTileProps) {
  const { value, uncertainty, exponent } = writeResult(result.value, result.halfWidth ?? result.roundTo);
  const hasUncertainty = result.halfWidth !== null && uncertainty !== null;
  const length =
    value.length +
    (hasUncertainty ? uncertainty.length + 3 : 0) +
    (exponent === 0 ? 0 : 7) +
    printedUnit(result.unit).length +
    1;
  return (
    <div className="digit-tile" style={figures(Math.max(length, 6))}>
      <span className="digit-name">
        {name} <LineSample style={style} /> <span className="quiet">{run}</span>
      </span>
      <div className="reading">
        <ResultText result={result} />
      </div>
    </div>
  );
}
