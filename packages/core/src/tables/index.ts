/**
 * What reading files needs, and nothing else of the core: the thread that reads them has less to load before it can begin.
 */
export { Refusal } from '../refusal';
export { ucumCode } from '../units/unit';
export { type Encoding, decodedPieces, encodingOf } from './encoding';
export { type NumberSink, type NumberStore, type Numbers, arrayOf, partsOf } from './numbers';
export { type Separator, type Table, readTable, separators } from './readTable';
export { type ImportedChannel, type ImportedRun, runsOfLaidOut } from './runsOfTable';
export { type TextSource } from './textSource';
