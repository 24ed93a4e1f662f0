import { type GivenColumn, type Run, type SpotColumn, type SpotRow } from '@heuristor/contracts';
import { axisLabel, parseUnit } from '@heuristor/core';
import { type ClipboardEvent, useEffect, useRef } from 'react';
import { Dropdown, Table } from 'react-bootstrap';
import { ThreeDots } from 'react-bootstrap-icons';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { cellOf } from './spotActions';
import { pastedRows } from './pastedRows';
import { tell } from '../../ui/noticeStore';
import { TextField } from '../../ui/TextField';
import { NewSeries } from './SpotLine';
import { useSeries } from './useSeries';
import { resultText, shortText } from '../../ui/numberText';
import { FixedMenu } from '../../ui/FixedMenu';

/** The readings of the series, as they were taken, each to be retaken, mended or dropped. */
export function SpotTable() {
  const session = useInvestigation();
  const { series, columns } = useSeries();
  const body = useRef<HTMLDivElement>(null);
  const rows = series?.spot?.rows.filter(({ removed }) => !removed) ?? [];
  const { length } = rows;
  useEffect(() => {
    body.current?.scrollTo({ top: body.current.scrollHeight });
  }, [length]);
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text');
    if (!/[\n\t]/.test(text.trim()) || columns.length === 0) return;
    event.preventDefault();
    const pasted = pastedRows(text, columns);
    if ('sentence' in pasted) tell({ kind: 'fault', text: pasted.sentence });
    else void session.spots.addRows(pasted.rows);
  };
  const shown = series?.spot?.columns ?? [];
  return (
    <aside className="spot-table" aria-label="Readings" onPaste={paste}>
      <header>
        <h2>{series === null ? 'New series' : series.name}</h2>
        <NewSeries />
      </header>
      {series === null || rows.length === 0 ? (
        <p className="quiet">
          {columns.length === 0
            ? 'Add a column for what you set by hand, or take a reading as it is.'
            : 'Readings come here one under the other. Rows copied from a spreadsheet can be pasted.'}
        </p>
      ) : (
        <div
          className="spot-rows"
          ref={body}
          tabIndex={0}
          role="region"
          aria-label={`Readings of ${series.name}`}
        >
          <Table size="sm">
            <thead>
              <tr>
                <th scope="col" aria-label="Number" />
                {shown.map((column) => (
                  <th key={column.key} scope="col">
                    {headingOf(column, series)}
                  </th>
                ))}
                <th scope="col" aria-label="More" />
              </tr>
            </thead>
            <tbody>
              {rows.map((row, i) => (
                <Row key={row.id} number={i + 1} row={row} run={series} columns={shown} />
              ))}
            </tbody>
          </Table>
        </div>
      )}
    </aside>
  );
}

function headingOf(column: SpotColumn, { channels }: Run): string {
  if (column.kind === 'word') return column.name;
  const channel = channels.find(({ key }) => key === column.key);
  const symbol = column.kind === 'typed' ? column.name : (channel?.symbol ?? column.key);
  return axisLabel(symbol, parseUnit(channel?.unit ?? ''));
}

function Row({
  number,
  row,
  run,
  columns,
}: {
  number: number;
  row: SpotRow;
  run: Run;
  columns: SpotColumn[];
}) {
  const session = useInvestigation();
  const isBusy = useDocuments(({ spots }) => spots.phase !== 'idle');
  const isRead = columns.some(({ kind }) => kind === 'measured');
  return (
    <tr>
      <td className="quiet">{number}</td>
      {columns.map((column) => (
        <td key={column.key}>
          {column.kind === 'measured' ? (
            <Measured row={row} column={column.key} />
          ) : (
            <Given row={row} run={run} column={column} number={number} />
          )}
        </td>
      ))}
      <td>
        <Dropdown align="end">
          <Dropdown.Toggle variant="bare" className="no-caret" aria-label={`More for reading ${number}`}>
            <ThreeDots aria-hidden />
          </Dropdown.Toggle>
          <FixedMenu>
            {isRead && (
              <Dropdown.Item disabled={isBusy} onClick={() => void session.spots.retake(run, row)}>
                Take it again
              </Dropdown.Item>
            )}
            <Dropdown.Item onClick={() => void session.spots.drop(run, [row])}>Remove it</Dropdown.Item>
          </FixedMenu>
        </Dropdown>
      </td>
    </tr>
  );
}

function Measured({ row, column }: { row: SpotRow; column: string }) {
  const cell = row.cells[column];
  if (cell === undefined || !('value' in cell)) return <span className="quiet">—</span>;
  const { value, u, spread, count, pinned } = cell;
  return (
    <span
      className={pinned ? 'pinned' : ''}
      title={`${count} readings, standard deviation ${shortText(spread, 3)}${pinned ? '; at the limit of its sensor, left out of what is worked out' : ''}`}
    >
      {pinned && '△ '}
      {resultText(value, u)}
    </span>
  );
}

const shownNumber = (value: number) => shortText(value, 10);

function Given({
  row,
  run,
  column,
  number,
}: {
  row: SpotRow;
  run: Run;
  column: GivenColumn;
  number: number;
}) {
  const session = useInvestigation();
  const cell = row.cells[column.key];
  const text =
    cell === undefined ? '' : 'typed' in cell ? shownNumber(cell.typed) : 'word' in cell ? cell.word : '';
  const read = (typed: string) => {
    const found = cellOf(column, typed);
    if (found === undefined && column.kind === 'typed')
      throw new Error(`Type ${column.name}, or remove the reading.`);
    return found ?? { word: '' };
  };
  return (
    <TextField
      label={`${column.name} of reading ${number}`}
      value={text}
      maxLength={80}
      className={column.kind === 'typed' ? 'mono cell' : 'cell'}
      check={(typed) => {
        try {
          read(typed);
          return null;
        } catch (error) {
          return error instanceof Error ? error.message : String(error);
        }
      }}
      onCommit={(typed) => void session.spots.change(run, row, column.key, read(typed))}
    />
  );
}
