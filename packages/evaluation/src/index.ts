export { conditionsOf } from './conditions';
export { type HeldRun, HeldRuns } from './heldRuns';
export { type OutcomesQuestion, outcomesOf } from './outcomes';
export { type FreshReadings, type RunReadings, readingsOfSpot } from './readings';
export { systematicOf } from './systematic';
