import {
  type ImportedChannel,
  Refusal,
  decodeText,
  readTable,
  runsOfTable,
  separators,
  ucumCode,
} from '@heuristor/core';
import { readFileSync } from 'node:fs';
import { type ReadAnswer, type ReadChannel, type ReadTask } from './task';

const reportMilliseconds = 100;

/** Reads a file of columns, on a thread of its own: the thread that records has better things to do. */
export default function read({ file, decimal, port }: ReadTask): ReadAnswer {
  try {
    const { text, encoding } = decodeText(readFileSync(file));
    let reported = 0;
    const progress = (share: number) => {
      if (Date.now() - reported < reportMilliseconds) return;
      reported = Date.now();
      port.postMessage(share);
    };
    const reading = readTable(text, decimal === null ? {} : { decimal }, { progress });
    if (reading.kind === 'question') return { kind: 'question', example: reading.example, encoding };
    const { table } = reading;
    return {
      kind: 'read',
      encoding,
      separator: separators[table.separator],
      decimal: table.decimal,
      rows: table.rows,
      runs: runsOfTable(table).map(({ name, channels }) => ({ name, channels: channels.map(handedOver) })),
    };
  } catch (error) {
    if (error instanceof Refusal) return { kind: 'refused', sentence: error.message };
    throw error;
  } finally {
    port.close();
  }
}

const shared = (values: Float64Array): Float64Array => {
  const out = new Float64Array(new SharedArrayBuffer(values.byteLength));
  out.set(values);
  return out;
};

function handedOver({ name, unit, timeUnit, sampling, values }: ImportedChannel): ReadChannel {
  return {
    name,
    unit: ucumCode(unit),
    timeUnit: ucumCode(timeUnit),
    sampling:
      sampling.kind === 'regular'
        ? { kind: 'regular', start: sampling.start, interval: sampling.interval }
        : { kind: 'timed' },
    values: shared(values),
    times: sampling.kind === 'regular' ? null : shared(sampling.times),
  };
}
