import { printedUnit } from '../units/unit';
import { clockIn, timesOfClock } from './clock';
import { type TableChoices, readTable } from './readTable';
import { runsOfTable } from './runsOfTable';
import { arrayOf } from './numbers';

function tableOf(text: string, choices: TableChoices = {}) {
  const reading = readTable(text, choices);
  if (reading.kind !== 'table') throw new Error('a question');
  return reading.table;
}
const columnsOf = (text: string, choices?: TableChoices) =>
  tableOf(text, choices).columns.map(({ name, unit, values }) => [
    name,
    printedUnit(unit),
    [...arrayOf(values)],
  ]);
const timesOf = (cells: string[], zone = 'UTC', keepsZero = false) => {
  const { times, begins } = timesOfClock(
    cells.map((cell) => clockIn(cell) ?? null),
    zone,
    keepsZero,
  );
  return { times: [...arrayOf(times)], begins };
};

// ISO 8601-1:2019, 5.4, and the ways in which loggers and spreadsheets write dates (common practice, no source).
test.each([
  ['2026-11-29T10:15:30.5Z', '2026-11-29T10:15:30.500Z'],
  ['2026-11-29T10:15:30+01:00', '2026-11-29T09:15:30.000Z'],
  ['2026-11-29T10:15:30-0330', '2026-11-29T13:45:30.000Z'],
  ['2026-11-29 10:15', '2026-11-29T10:15:00.000Z'],
  ['2026/11/29 10:15:30', '2026-11-29T10:15:30.000Z'],
  ['29.11.2026 10:15:30', '2026-11-29T10:15:30.000Z'],
  ['29.11.26 10:15', '2026-11-29T10:15:00.000Z'],
  ['11/29/2026 2:05:00 PM', '2026-11-29T14:05:00.000Z'],
  ['29/11/2026 12:30 am', '2026-11-29T00:30:00.000Z'],
  ['2026-11-29', '2026-11-29T00:00:00.000Z'],
])('%s is the instant %s', (cell, instant) => {
  expect(timesOf([cell]).begins).toBe(instant);
});

test.each([
  '25:00:00',
  '10:75',
  '2026-13-01',
  '32.01.2026',
  '10.5',
  '1:2',
  '12/2026',
  '13:00 pm',
  'at 10:15',
])('%s is no time', (cell) => {
  expect(clockIn(cell)).toBeUndefined();
});

test('times of day go on over midnight, and fractions are kept', () => {
  expect(timesOf(['23:59:58.25', '23:59:59.5', '00:00:00.75', '00:00:02'])).toEqual({
    times: [0, 1.25, 2.5, 3.75],
    begins: null,
  });
  expect(timesOf(['00:00:05', '00:00:06'], 'UTC', true).times).toEqual([5, 6]);
});

// Directive 2000/84/EC: clocks go back by an hour at 01:00 universal time on the last Sunday of October, forward on that of March.
test('nights with a changed clock are as long as they were', () => {
  const autumn = ['01:30', '02:00', '02:30', '02:00', '02:30', '03:00'].map((clock) => `2026-10-25 ${clock}`);
  expect(timesOf(autumn, 'Europe/Berlin')).toEqual({
    times: [0, 1800, 3600, 5400, 7200, 9000],
    begins: '2026-10-24T23:30:00.000Z',
  });
  const spring = ['2026-03-29 01:30', '2026-03-29 03:00', '2026-03-29 03:30'];
  expect(timesOf(spring, 'Europe/Berlin').times).toEqual([0, 1800, 3600]);
  expect(timesOf(spring, 'UTC').times).toEqual([0, 5400, 7200]);
});

test('whether day or month stands first follows from the others, or from dates that lie closer together', () => {
  expect(timesOf(['03/04/2026', '04/04/2026', '05/04/2026']).times).toEqual([0, 86_400, 172_800]);
  expect(timesOf(['04/03/2026', '04/04/2026', '04/05/2026']).times).toEqual([0, 86_400, 172_800]);
  expect(timesOf(['12/11/2026', '13/11/2026']).times).toEqual([0, 86_400]);
});

test('a logger’s file: preamble, units in a row of their own, date and time apart, NA, %, decimal commas, thousands', () => {
  const text = [
    'Weather mast of the quay',
    'Date;Time;Pressure;Humidity;Light',
    ';;hPa;%;lx',
    '29.11.2026;10:15:00;1 013,2;45,5;12 400',
    '29.11.2026;10:16:00;1 013,1;NA;12 350',
    "29.11.2026;10:17:00;1'013,0;46,0;--",
  ].join('\r\n');
  expect(columnsOf(text, { zone: 'Europe/Berlin' })).toEqual([
    ['Time', 's', [0, 60, 120]],
    ['Pressure', 'hPa', [1013.2, 1013.1, 1013]],
    ['Humidity', '%', [45.5, NaN, 46]],
    ['Light', 'lx', [12_400, 12_350, NaN]],
  ]);
  const [run] = runsOfTable(tableOf(text, { zone: 'Europe/Berlin' }));
  expect(run.begins).toBe('2026-11-29T09:15:00.000Z');
  expect(run.channels[0].sampling).toEqual({ kind: 'regular', start: 0, interval: 60, count: 3 });
});

test('units behind the numbers are those of the column; a prefix is none', () => {
  expect(columnsOf('duty\tlength\tR\n45 %\t12.5 mm\t4.7k\n46 %\t12.6 mm\t10k')).toEqual([
    ['duty', '%', [45, 46]],
    ['length', 'mm', [12.5, 12.6]],
    ['R', '', [4700, 10_000]],
  ]);
});

test('a time that stands in a later column is the time all the same', () => {
  const [run] = runsOfTable(
    tableOf('T / °C,at\n20.5,2026-11-29T10:00:00Z\n20.7,2026-11-29T10:00:10Z\n20.9,2026-11-29T10:00:20Z'),
  );
  expect(run.channels.map(({ name }) => name)).toEqual(['T']);
  expect(run.begins).toBe('2026-11-29T10:00:00.000Z');
});

test('a cell that is no time in a column of times is named by its row', () => {
  expect(() => tableOf('t,x\n10:00:00,1\nlater,2')).toThrow('Row 3, column 1 (t): “later” is not a number.');
});

test('dates that have the day first here and the month first there are refused, whatever is meant', () => {
  expect(() => tableOf('at,x\n25/03/2026,1\n03/26/2026,2')).toThrow('Write all of them alike');
});

test('of times of day alone the first is told, which is t = 0', () => {
  const [run] = runsOfTable(tableOf('clock,x\n10:15:30,1\n10:15:31,2'));
  expect([run.since, run.begins]).toEqual(['10:15:30', undefined]);
  const [elapsed] = runsOfTable(tableOf('elapsed,x\n00:00:05,1\n00:00:06,2'));
  expect(elapsed.since).toBeUndefined();
  expect(elapsed.channels[0].sampling).toEqual({ kind: 'regular', start: 5, interval: 1, count: 2 });
});
