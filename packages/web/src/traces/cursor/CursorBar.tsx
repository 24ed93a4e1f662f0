import { type EntryKindKey, type SeriesRef, type Unit, printedUnit } from '@heuristor/core';
import { Button, ButtonToolbar, Dropdown, Form } from 'react-bootstrap';
import { XLg } from 'react-bootstrap-icons';
import { useShallow } from 'zustand/react/shallow';
import { AlignMenu } from '../../runs/AlignMenu';
import {
  useAbscissa,
  useCursor,
  useFrontRun,
  useNames,
  usePicture,
  useSession,
} from '../../investigation/context';
import { usualTangent } from './cursor';
import { copyText } from '../../ui/clipboard';
import { cursorTable, differencesOf, tangentsOf } from './cursorWords';
import { abscissaAxis, withEntry } from '../../workings/edits';
import { LineSample } from '../../runs/LineSample';
import { fineText, shortText } from '../../ui/numberText';
import { FixedMenu } from '../../ui/FixedMenu';

/** What can be done with a cursor that was put down. */
export function CursorBar() {
  const session = useSession();
  const { placed, second, snap, tangentPoints } = useCursor(
    useShallow((state) => ({
      placed: state.placed,
      second: state.second,
      snap: state.snap,
      tangentPoints: state.tangentPoints,
    })),
  );
  if (placed === null) return null;
  const { cursor } = session;
  return (
    <ButtonToolbar
      className="cursor-bar"
      aria-label="Cursor"
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        cursor.lift();
      }}
    >
      {second === null ? (
        <Button
          variant="plain"
          title="Shift and a press on a trace puts it there"
          onClick={() => {
            void cursor.putSecondBeside();
          }}
        >
          Second cursor
        </Button>
      ) : (
        <Button variant="plain" onClick={() => cursor.set({ second: null })}>
          One cursor
        </Button>
      )}
      <Form.Check
        type="switch"
        id="cursor-snap"
        label="on readings"
        checked={snap}
        onChange={() => cursor.set({ snap: !snap })}
      />
      <Form.Check
        type="switch"
        id="cursor-tangent"
        label="tangent"
        checked={tangentPoints !== null}
        onChange={() => cursor.set({ tangentPoints: tangentPoints === null ? usualTangent : null })}
      />
      {tangentPoints !== null && (
        <Form.Select
          aria-label="Readings of the tangent"
          value={tangentPoints}
          onChange={(event) => cursor.set({ tangentPoints: Number(event.target.value) })}
        >
          {[3, 5, 9, 15, 25, 51, 101].map((points) => (
            <option key={points} value={points}>
              over {points}
            </option>
          ))}
        </Form.Select>
      )}
      <KeepMenu />
      <LabelMenu />
      <Button
        variant="plain"
        title="The reading of the run in front, in the first trace"
        onClick={() => {
          const { read } = cursor.state.getState();
          const { front } = session;
          const of = session.picture.getState().traces.find(({ reference }) => reference !== null)?.reference;
          const x = read?.runs.find(({ runId }) => runId === front?.id);
          const at = of == null ? undefined : x?.values[of]?.x;
          if (front === undefined || of == null || at === undefined) return;
          void session.asides.inside([front], of, { along: 't', start: at, end: at });
        }}
      >
        Set aside
      </Button>
      <AlignMenu />
      <Button
        variant="bare"
        className="take-away"
        aria-label="Take the cursor away"
        title="Take the cursor away (Escape)"
        onClick={() => cursor.lift()}
      >
        <XLg aria-hidden />
      </Button>
      <CursorWords />
    </ButtonToolbar>
  );
}

/** What is read of the run in front at the cursors: tangents, and what lies between both. */
function CursorWords() {
  const front = useFrontRun();
  const traces = usePicture((picture) => picture.traces);
  const abscissa = useAbscissa();
  const { read, secondRead } = useCursor(
    useShallow((state) => ({ read: state.read, secondRead: state.secondRead })),
  );
  if (read === null || front === undefined) return null;
  const differences =
    secondRead === null ? [] : differencesOf(read, secondRead, front.id, traces, abscissa.unit);
  const tangents = tangentsOf(read, front.id, traces);
  if (differences.length === 0 && tangents.length === 0) return null;
  const [duration, ...changes] = differences;
  const symbols = [...new Set([...changes, ...tangents].map(({ symbol }) => symbol))];
  const rows: { title: string; cells: (string | null)[] }[] = [];
  const row = (title: string, cellOf: (symbol: string) => string | null) =>
    rows.push({ title, cells: symbols.map(cellOf) });
  if (duration !== undefined) {
    const changeOf = (symbol: string) => changes.find((change) => change.symbol === symbol);
    row(`change over Δ${abscissa.symbol} = ${text(duration.change, duration.unit)}`, (symbol) => {
      const found = changeOf(symbol);
      return found === undefined ? null : text(found.change, found.unit);
    });
    row('slope between', (symbol) => {
      const found = changeOf(symbol);
      return found?.slope == null ? null : text(found.slope, found.slopeUnit);
    });
  }
  const [first] = tangents;
  if (first !== undefined)
    row(`tangent over ${shortText(first.window, 3)} ${printedUnit(abscissa.unit)}`, (symbol) => {
      const found = tangents.find((tangent) => tangent.symbol === symbol);
      return found === undefined ? null : text(found.slope, found.unit);
    });
  return (
    <table className="cursor-words" data-testid="cursor-words">
      <thead>
        <tr>
          <th scope="col">
            <LineSample style={front.style} width={18} /> {front.name}
          </th>
          {symbols.map((symbol) => (
            <th key={symbol} scope="col">
              {symbol}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ title, cells }) => (
          <tr key={title}>
            <th scope="row">{title}</th>
            {cells.map((cell, i) => (
              <td key={symbols[i]} className="mono">
                {cell ?? '–'}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const text = (value: number, unit: Unit) => `${fineText(value)} ${printedUnit(unit)}`.trim();

/** Words on the reading of the run in front at the cursor. */
function LabelMenu() {
  const session = useSession();
  const nameOf = useNames();
  const front = useFrontRun();
  const traces = usePicture(
    useShallow(({ traces: drawn }) =>
      drawn.flatMap(({ key, quantities }) => quantities.map(({ reference }) => `${key}\n${reference}`)),
    ),
  );
  return (
    <Dropdown drop="up">
      <Dropdown.Toggle variant="plain">Label</Dropdown.Toggle>
      <FixedMenu>
        {traces.map((pair) => {
          const [panel, of] = pair.split('\n') as [string, SeriesRef];
          return (
            <Dropdown.Item
              key={pair}
              as="button"
              onClick={() => {
                const { read } = session.cursor.state.getState();
                const at = read?.runs.find(({ runId }) => runId === front?.id)?.values[of]?.x;
                if (front === undefined || at === undefined) return;
                const name = nameOf(of);
                session.addLabel(
                  panel,
                  { kind: 'point', run: front.id, series: of, x: at },
                  `${name} = {${name}}`,
                );
              }}
            >
              the reading of {nameOf(of)}
            </Dropdown.Item>
          );
        })}
      </FixedMenu>
    </Dropdown>
  );
}

/** Values at the cursor as entries of the sheet: so they are worked out for every run. */
function KeepMenu() {
  const session = useSession();
  const nameOf = useNames();
  const { second, tangentPoints } = useCursor(
    useShallow((state) => ({ second: state.second, tangentPoints: state.tangentPoints })),
  );
  const references = usePicture(
    useShallow(({ traces }) => [
      ...new Set(traces.flatMap(({ quantities }) => quantities.map(({ reference }) => reference))),
    ]),
  );
  const keep = (kind: EntryKindKey, of: SeriesRef, preset: Record<string, unknown>) =>
    session.changeWorkings(
      (workings) => withEntry(workings, session.onPage, { kind, of, region: null, preset }).workings,
    );
  const places = () => {
    const { read, secondRead } = session.cursor.state.getState();
    const at = (of: SeriesRef, which: typeof read) => {
      const front = session.front?.id;
      const own = which?.runs.find(({ runId }) => runId === front)?.values[of];
      return own?.x ?? which?.at ?? 0;
    };
    return { first: (of: SeriesRef) => at(of, read), second: (of: SeriesRef) => at(of, secondRead) };
  };
  const copy = () => {
    const { read } = session.cursor.state.getState();
    const { traces } = session.picture.getState();
    if (read === null) return;
    void copyText(
      cursorTable(read, session.runs, traces, abscissaAxis(session.runs)),
      'What is read at the cursor',
    );
  };
  return (
    <Dropdown drop="up">
      <Dropdown.Toggle variant="plain">Add to workings</Dropdown.Toggle>
      <FixedMenu>
        {references.flatMap((of) => [
          <Dropdown.Item
            key={`value ${of}`}
            as="button"
            onClick={() => keep('readout', of, { at: places().first(of) })}
          >
            {nameOf(of)} here
          </Dropdown.Item>,
          ...(second === null
            ? []
            : [
                <Dropdown.Item
                  key={`change ${of}`}
                  as="button"
                  onClick={() => {
                    const [from, to] = [places().second(of), places().first(of)];
                    keep('change', of, { from: Math.min(from, to), to: Math.max(from, to) });
                  }}
                >
                  change of {nameOf(of)} between the cursors
                </Dropdown.Item>,
              ]),
          ...(tangentPoints === null
            ? []
            : [
                <Dropdown.Item
                  key={`tangent ${of}`}
                  as="button"
                  onClick={() => keep('tangent', of, { at: places().first(of), windowPoints: tangentPoints })}
                >
                  tangent to {nameOf(of)}
                </Dropdown.Item>,
              ]),
        ])}
        <Dropdown.Divider />
        <Dropdown.Item as="button" onClick={copy}>
          Copy the values of all runs here, as columns
        </Dropdown.Item>
      </FixedMenu>
    </Dropdown>
  );
}
