export { Refusal, orRefusal } from './refusal';
export * from './units/unit';
export { conversionFactor, isTimeUnit } from './units/conversion';
export {
  type Series,
  readingsSeries,
  valueAt,
  valuesAtTimesOf,
  indexAfter,
  indexAtOrAfter,
} from './series/series';
export { noiseOfReadings } from './series/noise';
export { type DrawnLine, thinForDrawing } from './series/thinning';
export { derivative } from './calculus/derivative';
export { localPolynomialFilter } from './calculus/filter';
export { localPolynomialWeights } from './calculus/localPolynomial';
export { runningIntegral, areaBetween } from './calculus/integral';
export { type Description, describe } from './statistics/describe';
export { leastSquares, type ModelFunction } from './fitting/levenbergMarquardt';
export { relations, relationKeys, relationOf, type RelationKey } from './fitting/relations';
export { type Relation, type FitPoints } from './fitting/relation';
export { fitRelation, type Fit } from './fitting/fit';
export * from './workings/lines';
export { type ChannelData, type RunData, abscissaName } from './workings/run';
export { type NamedResult, type Outcome, type Curve } from './workings/outcome';
export { type Evaluation, Evaluator, evaluate } from './workings/evaluate';
export { lineSentence } from './workings/kinds';
export { type NameOf } from './workings/kind';
export { type WrittenResult, writeResult, resultText } from './results/rounding';
export { type Heading, axisLabel, parseHeading, writeHeading } from './tables/heading';
export { type Column, readColumns, writeColumns } from './tables/columns';
