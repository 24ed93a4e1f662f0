export { Refusal, orRefusal } from './refusal';
export { faultOutcome } from './workings/evaluate';
export { conditionResult } from './workings/conditionResult';
export * from './units/unit';
export { uncertaintyOfRest } from './statistics/still';
export { type Systematic } from './workings/run';
export { intervalUnit, temperatureKind } from './units/temperature';
export {
  canConvert,
  conversionBetween,
  conversionFactor,
  conversionOf,
  isTimeUnit,
  readIn,
} from './units/conversion';
export { standardGravity } from './units/atoms';
export { leadingNumber, typedLoad, typedQuantity, typedRate } from './units/typed';
export {
  type Sampling,
  checkSampling,
  countOf,
  indexAfter,
  indexAtOrAfter,
  intervalOf,
  onOneGrid,
  regular,
  timeAt,
  timed,
  timesOf,
} from './series/sampling';
export { Growing } from './series/growing';
export { type Ranges, countIn, rangesOf, united, without } from './series/ranges';
export { type HampelRule, hampelOutliers, madScale, usualRule } from './statistics/hampel';
export { type Series, readingsSeries, valueAt, valuesAtTimesOf } from './series/series';
export { strayFloor, withoutStrays } from './series/strays';
export { noiseAt } from './series/noiseAt';
export { NoiseLevel } from './series/noiseLevel';
export { MinMaxPyramid, pyramidOf } from './series/pyramid';
export { type DrawnLine, thinPoints, thinSeries } from './series/thinning';
export { derivative } from './calculus/derivative';
export { type Tangent, nearestReading, tangentAt } from './calculus/tangent';
export { crossingsOf, extremeOf } from './calculus/crossings';
export { localPolynomialFilter } from './calculus/filter';
export { localPolynomialWeights } from './calculus/localPolynomial';
export { runningIntegral } from './calculus/integral';
export { areaAlongPath, areaBetween } from './calculus/area';
export { flatteningIn, responseAt } from './calculus/flattening';
export { type Description, describe } from './statistics/describe';
export { coverageFactor } from './statistics/significance';
export { bandwidthOf } from './statistics/motion';
export {
  type ModelFunction,
  type Solution,
  type SolverOptions,
  leastSquares,
} from './fitting/levenbergMarquardt';
export { relations, relationKeys, relationOf, type RelationKey } from './fitting/relations';
export { type TriedRelation, tryRelations } from './fitting/compare';
export { type Relation, type FitPoints } from './fitting/relation';
export { type ParameterSetting, usualSetting } from './fitting/models/typedFunction';
export { type ModelFit, fitModel, fitRelation, plainPoints } from './fitting/fit';
export { type Fit } from './fitting/fitted';
export { fitNoise, independentCovariance, transformCovariance } from './fitting/covariance';
export {
  type BudgetRow,
  type Influence,
  type Quantity,
  budgetOf,
  covarianceOf,
  halfWidth,
} from './results/quantity';
export { dependenciesOf, dependenciesOn } from './evaluation/dependencies';
export { type OpenedResult, openedEvaluation, ownCovariance } from './evaluation/opened';
export { restrictedTo } from './evaluation/restricted';
export {
  type StoredEvaluation,
  type StoredNumber,
  type StoredRepeats,
  type StoredOutcome,
  type StoredResult,
  storedEvaluation,
} from './evaluation/stored';
export * from './workings/references';
export * from './workings/entries';
export {
  type Anchor,
  type Field,
  type FieldTypeKey,
  type FieldValue,
  type Fields,
  type FormulaText,
  type OwnInterval,
  usualOf,
  valueOfNew,
} from './workings/fields';
export { type ReferenceMap } from './workings/fieldTypes/fieldType';
export { referencesIn, withReferences } from './workings/uses';
export { withUnitsGiven } from './workings/givenUnits';
export {
  type KnownChannel,
  type SheetOver,
  type Transfer,
  channelsFor,
  freeLetter,
  freeName,
  doesTheSame,
  transferred,
} from './workings/transfer';
export { type Drawn } from './results/drawn';
export { drawnIn, fittedIn } from './workings/asked';
export { type JointFit, type JointSet, jointFit } from './fitting/joint';
export { meanOfRepeats } from './workings/kinds/constant';
export { anchorWords } from './workings/anchorWords';
export { type EventKind, eventIn, eventTitles, isCounted } from './calculus/events';
export { turnsOf } from './calculus/turns';
export { valuesAcross, withConstantAt } from './workings/acrossConstant';
export { sliderEnds } from './workings/kinds/constant';
export { type EntryBase, type EntryKind, type NameOf, type Offer } from './workings/kind';
export { type ChannelData, type Condition, type LeftOut, type RunData, abscissaName } from './workings/run';
export { amplitudeSpectrum } from './spectrum/amplitudes';
export { type Tone, toneAt } from './spectrum/tone';
export { type SpectrumWindow, windowWeight } from './spectrum/windows';
export { type Box, boxOf } from './statistics/box';
export { type BinRule, type Histogram, histogramOf } from './statistics/histogram';
export {
  type Curve,
  type Fitted,
  type GraphAxis,
  type NamedResult,
  type Outcome,
  type OwnGraph,
  type Passes,
  type Working,
} from './workings/outcome';
export { type Checked, checkUnits } from './formula/check';
export { type KnownConstant, densities, fundamentalConstants } from './known/constants';
export { gravityAnomaly, normalGravity } from './known/gravity';
export { type BandColour, bandColours, resistorOf } from './known/resistor';
export { FormulaFault } from './formula/fault';
export { functionNames } from './formula/functions';
export { isPi, plainName, sameName } from './formula/names';
export { parseFormula } from './formula/parse';
export { printFormula, withNames, writtenName } from './formula/print';
export { type Formula, hasDerivative, namesIn } from './formula/tree';
export { texFormula, texName, texUnit } from './formula/typeset';
export { type Pace, type PacePoint, targetAt } from './pace/target';
export { simplified, simplifiedTo } from './pace/simplify';
export {
  type PaceRoom,
  generatedPositions,
  generatedSpeeds,
  walkingRoom,
  walkingSpeed,
} from './pace/generate';
export { type SenmlRecord, readSenml, relativeBelow, ucumOfSenml } from './senml/senml';
export { type SpotReading, type SpotReadings, spotMean } from './spots/mean';
export { spotSwing } from './spots/swing';
export { type Edge, type LeftOutPass, blockingsOf, mergedEdges } from './timing/edges';
export { type EvaluateOptions, type Evaluation, Evaluator, evaluate } from './workings/evaluate';
export {
  type DisplayedResult,
  readableUnitOf,
  resultInUnit,
  unitChoices,
  unitShown,
} from './results/readable';
export { type BothWays, bothWays } from './timing/bothWays';
export { significantDigits } from './results/digits';
export { grouped, type WrittenResult, raised, resultText, writeResult } from './results/rounding';
export { type Heading, axisLabel, parseHeading, writeHeading } from './tables/heading';
export { type Numbers, arrayOf } from './tables/numbers';
export { readTable } from './tables/readTable';
export { type Column, writeColumns } from './tables/columns';
export { normalRandom, uniformRandom } from './random';
export { type Cell, nothing, numberCell, typedQuantityOf } from './trials/cell';
export { inUnit } from './trials/inUnit';
export { type NumberColumn, type TabledColumn, tabled } from './trials/tabled';
export { calculatedCell } from './trials/columnFormula';
export { type OneWay, oneWay, oneWayWords } from './trials/oneWay';
export { type Summary, scatterWords, summaryOf } from './trials/summary';
export { type SharedEffect } from './series/series';
export { compared } from './workings/kinds/comparison';
