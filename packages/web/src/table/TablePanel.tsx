import { type SeriesRef, axisLabel, printedUnit } from '@heuristor/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type FormEvent, type KeyboardEvent, type MouseEvent, useEffect, useRef, useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { CheckSquare, Clipboard, Search, Square, ThreeDotsVertical, XLg } from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import {
  useCursor,
  useDocuments,
  useLaidRegions,
  useNames,
  useSession,
  useView,
} from '../investigation/context';
import { seriesChoices, withRegion } from '../workings/edits';
import { shownRuns } from '../runs/runs';
import { partRows } from './tableReader';
import { usePresenter } from '../ui/presenter';
import { highlighterPaint } from '../runs/runStyles';
import { type TableColumn, type TableShape } from '../workers/protocol';
import { fontScale } from '../traces/geometry';
import { fixedText, writeResult } from '../ui/numberText';
import { FixedMenu } from '../ui/FixedMenu';

const rowHeight = 26;
/** A browser draws nothing that is higher than this; a table with more rows has lower ones. */
const mostHeight = 30_000_000;
const mostDecimals = 9;

/** The numbers of one run beside the traces, linked with them by the cursor and by the regions. */
export function TablePanel() {
  const session = useSession();
  const isOpen = useStore(session.table.state, (state) => state.isOpen);
  return isOpen ? <OpenTable /> : null;
}

function OpenTable() {
  const session = useSession();
  const { table } = session;
  const { shape, shown, run } = useStore(table.state);
  const runs = useDocuments((documents) => documents.runs);
  const present = shownRuns(runs);
  const selected = useView(({ selectedRegion }) => selectedRegion);
  const region = useLaidRegions().find(({ id }) => id === selected);
  const interval = region?.along === 't' ? { from: region.start, to: region.end } : null;
  return (
    <aside className="number-table" aria-label="Table of numbers">
      <header>
        <Form.Select
          aria-label="Run of the table"
          value={run ?? ''}
          onChange={({ target }) => table.choose({ run: target.value === '' ? null : target.value })}
        >
          <option value="">Run in front</option>
          {present.map(({ id, number, name }) => (
            <option key={id} value={id}>
              {number} · {name}
            </option>
          ))}
        </Form.Select>
        <ColumnMenu />
        <Button
          variant="plain"
          title={interval === null ? 'Copy all rows as columns' : 'Copy the rows of the region as columns'}
          aria-label={interval === null ? 'Copy all rows' : 'Copy the rows of the region'}
          disabled={shape === null || shape.count === 0}
          onClick={() => void table.copy(interval)}
        >
          <Clipboard aria-hidden />
        </Button>
        <Button variant="bare" aria-label="Close the table" onClick={() => table.toggle()}>
          <XLg aria-hidden />
        </Button>
      </header>
      {shape === null ? (
        <p className="quiet">This run has none of the columns. Choose others, or another run.</p>
      ) : (
        <Rows shape={shape} columns={shown} ofRegion={interval} letter={region?.letter ?? 'A'} />
      )}
    </aside>
  );
}

function ColumnMenu() {
  const session = useSession();
  const { table } = session;
  const nameOf = useNames();
  const runs = useDocuments((documents) => documents.runs);
  const workings = useDocuments((documents) => documents.workings);
  useStore(table.state, ({ columns }) => columns);
  const { columns } = table;
  return (
    <Dropdown autoClose="outside">
      <Dropdown.Toggle variant="plain">Columns</Dropdown.Toggle>
      <FixedMenu>
        {seriesChoices(runs, workings).map((choice) => (
          <Dropdown.Item
            key={choice}
            as="button"
            role="menuitemcheckbox"
            aria-checked={columns.includes(choice)}
            onClick={() => table.toggleColumn(choice)}
          >
            {columns.includes(choice) ? <CheckSquare aria-hidden /> : <Square aria-hidden />} {nameOf(choice)}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.Item as="button" onClick={() => table.choose({ columns: null })}>
          As on the page
        </Dropdown.Item>
      </FixedMenu>
    </Dropdown>
  );
}

interface RowsProps {
  shape: TableShape;
  columns: readonly SeriesRef[];
  /** The times of the region in hand. */
  ofRegion: { from: number; to: number } | null;
  letter: string;
}

function Rows({ shape, columns, ofRegion, letter }: RowsProps) {
  const session = useSession();
  const { table } = session;
  const scroller = useRef<HTMLDivElement>(null);
  usePresenter((state) => state.large);
  const parts = useStore(table.state, (state) => state.parts);
  const cursorRow = useStore(table.state, (state) => state.cursorRow);
  const decimals = useStore(table.state, (state) => state.decimals);
  const placed = useCursor((cursor) => cursor.placed);
  const { count, step } = shape;
  const height = Math.min(rowHeight * fontScale(), mostHeight / Math.max(count, 1));
  const virtualizer = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 12,
  });
  const items = virtualizer.getVirtualItems();
  const [first, past] = [items[0]?.index ?? 0, (items.at(-1)?.index ?? -1) + 1];
  useEffect(() => virtualizer.measure(), [virtualizer, height]);
  useEffect(() => table.see(first, past), [table, first, past]);
  /** A row that was pressed is in sight: the table does not move under the hand. */
  const isOwn = useRef(false);
  useEffect(() => {
    if (cursorRow === null) return;
    if (!isOwn.current) virtualizer.scrollToIndex(cursorRow, { align: 'center' });
    isOwn.current = false;
  }, [cursorRow, placed, virtualizer]);
  /** Where keys have brought the cursor: they may come faster than it follows. */
  const stepped = useRef(cursorRow);
  useEffect(() => {
    stepped.current = cursorRow;
  }, [cursorRow]);
  const start = ofRegion?.from ?? null;
  useEffect(() => {
    if (start === null) return;
    let isWanted = true;
    void table.rowAt(start).then((row) => {
      if (isWanted && row !== null) virtualizer.scrollToIndex(row, { align: 'start' });
    });
    return () => {
      isWanted = false;
    };
    // Only when another region is taken in hand, not while it is dragged.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [letter, start === null, table, virtualizer]);
  const press = (event: MouseEvent, time: number) => {
    isOwn.current = true;
    if (!event.shiftKey || placed === null) session.cursor.put(time);
    else mark(placed, time);
  };
  /** Rows from the cursor on become a region. */
  const mark = (from: number, to: number) =>
    session.changeWorkings((workings) => {
      const page = session.onPage.page;
      const made = withRegion(workings, page, Math.min(from, to), Math.max(from, to), 't');
      session.viewing.selectRegion(made.id);
      return made.workings;
    });
  const onKeyDown = (event: KeyboardEvent) => {
    const page = Math.max(Math.floor((scroller.current?.clientHeight ?? 0) / height) - 1, 1);
    const by: Partial<Record<string, number>> = {
      ArrowUp: -1,
      ArrowDown: 1,
      PageUp: -page,
      PageDown: page,
      Home: -count,
      End: count,
    };
    const rows = by[event.key];
    if (rows === undefined || event.target !== scroller.current) return;
    event.preventDefault();
    const row = Math.min(Math.max((stepped.current ?? (rows > 0 ? -1 : count)) + rows, 0), count - 1);
    stepped.current = row;
    void table.timeAt(row).then((time) => {
      if (time !== null) session.cursor.put(time);
    });
  };
  const widths = [leastColumn, ...shape.columns.map((column) => columnWidth(column))];
  const template = { gridTemplateColumns: widths.map((width) => `minmax(${width}ch, 1fr)`).join(' ') };
  const least = `${widths.reduce((sum, width) => sum + width, 0)}ch`;
  return (
    <>
      <FindTime shape={shape} />
      <div
        className="number-rows"
        ref={scroller}
        tabIndex={0}
        role="grid"
        aria-label="Numbers"
        aria-rowcount={count + 1}
        aria-colcount={columns.length + 1}
        onKeyDown={onKeyDown}
      >
        <div className="number-head" role="row" aria-rowindex={1} style={{ ...template, minWidth: least }}>
          <div role="columnheader">
            <span>{axisLabel(shape.abscissa.symbol, shape.abscissa.unit)}</span>
          </div>
          {columns.map((reference, i) => (
            <Heading key={reference} reference={reference} column={shape.columns[i]} />
          ))}
        </div>
        <div
          className="number-body"
          role="rowgroup"
          style={{ height: virtualizer.getTotalSize(), minWidth: least }}
        >
          {items.map(({ index, start: top }) => {
            const part = parts.get(Math.floor(index / partRows));
            const place = part === undefined ? 0 : index - part.first;
            const time = part?.times[place];
            const isIn =
              time !== undefined && ofRegion !== null && time >= ofRegion.from && time <= ofRegion.to;
            return (
              <div
                key={index}
                role="row"
                aria-rowindex={index + 2}
                aria-selected={index === cursorRow}
                className={`number-row ${index === cursorRow ? 'current' : ''}`}
                style={{
                  ...template,
                  top,
                  height,
                  ...(isIn ? { background: highlighterPaint(letter).fill } : {}),
                }}
                onClick={(event) => time !== undefined && press(event, time)}
              >
                <div role="gridcell">{time === undefined ? '…' : written(time, null, step)}</div>
                {columns.map((reference, i) => {
                  const value = part?.columns[i]?.[place];
                  const isOut = part?.leftOut[i]?.[place] === 1;
                  const column = shape.columns[i];
                  return (
                    <div
                      key={reference}
                      role="gridcell"
                      className={isOut ? 'left-out' : column?.isBetween === true ? 'between' : ''}
                      title={
                        isOut ? 'no measurement, or set aside: left out of what is worked out' : undefined
                      }
                    >
                      {value === undefined || Number.isNaN(value)
                        ? ''
                        : written(value, decimals[reference] ?? null, column?.noise ?? null)}
                    </div>
                  );
                })}
              </div>
            );
          })}
        </div>
      </div>
    </>
  );
}

/** Widths of columns in figures: of one that holds numbers only, and what its heading needs beside its menu. */
const leastColumn = 10;
const columnWidth = (column: TableColumn | null): number =>
  column === null
    ? leastColumn
    : Math.max(axisLabel(column.symbol, column.unit).length + (column.isBetween ? 5 : 3), leastColumn + 1);

/** A number with chosen decimals, or with two figures of what noise does to it. */
function written(value: number, decimals: number | null, noise: number | null): string {
  if (decimals !== null) return fixedText(value, decimals);
  const result = writeResult(value, noise, 6);
  return result.exponent === 0 ? result.value : `${result.value}e${result.exponent}`;
}

function Heading({ reference, column }: { reference: SeriesRef; column: TableColumn | null }) {
  const session = useSession();
  const { table } = session;
  const nameOf = useNames();
  const chosen = useStore(table.state, ({ decimals }) => decimals[reference]);
  const name = column?.symbol ?? nameOf(reference);
  const choose = (decimals: number | undefined) => {
    const rest = { ...table.state.getState().decimals };
    if (decimals === undefined) delete rest[reference];
    else rest[reference] = decimals;
    table.choose({ decimals: rest });
  };
  return (
    <div role="columnheader">
      <span
        title={
          column?.isBetween === true
            ? 'Read at other times: on the straight line between its readings'
            : undefined
        }
      >
        {column?.isBetween === true && '≈ '}
        {column === null ? name : axisLabel(name, column.unit)}
      </span>
      <Dropdown align="end">
        <Dropdown.Toggle variant="bare" className="no-caret" aria-label={`Set up the column of ${name}`}>
          <ThreeDotsVertical aria-hidden />
        </Dropdown.Toggle>
        <FixedMenu>
          <Dropdown.Header>Decimals</Dropdown.Header>
          <Dropdown.Item as="button" active={chosen === undefined} onClick={() => choose(undefined)}>
            as its noise allows
          </Dropdown.Item>
          <div className="decimal-choices">
            {Array.from({ length: mostDecimals + 1 }, (_, digits) => (
              <Button
                key={digits}
                variant={chosen === digits ? 'act' : 'plain'}
                aria-pressed={chosen === digits}
                onClick={() => choose(digits)}
              >
                {digits}
              </Button>
            ))}
          </div>
          <Dropdown.Divider />
          <Dropdown.Item as="button" onClick={() => table.toggleColumn(reference)}>
            Take this column out
          </Dropdown.Item>
        </FixedMenu>
      </Dropdown>
    </div>
  );
}

/** Finds the row of a time that is typed. */
function FindTime({ shape }: { shape: TableShape }) {
  const session = useSession();
  const [text, setText] = useState('');
  const { symbol, unit } = shape.abscissa;
  const wanted = Number(text.trim().replace('−', '-').replace(',', '.'));
  const isWrong = text.trim() !== '' && !Number.isFinite(wanted);
  const find = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() !== '' && !isWrong) session.cursor.put(wanted);
  };
  return (
    <form className="find-time" onSubmit={find}>
      <Form.Control
        size="sm"
        aria-label={`Find ${symbol}`}
        placeholder={`Find ${symbol}${unit.length === 0 ? '' : ` in ${printedUnit(unit)}`}`}
        value={text}
        isInvalid={isWrong}
        onChange={({ target }) => setText(target.value)}
      />
      <Button
        type="submit"
        variant="plain"
        aria-label={`Go to ${symbol}`}
        disabled={text.trim() === '' || isWrong}
      >
        <Search aria-hidden />
      </Button>
      {isWrong && <span className="refused">Type a number like 1.25.</span>}
    </form>
  );
}
