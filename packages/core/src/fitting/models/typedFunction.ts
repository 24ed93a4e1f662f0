import { type Measured, measured } from '../../formula/dimension';
import { sameName } from '../../formula/names';
import { type Input, type Program } from '../../formula/program';
import { type Unit } from '../../units/unit';
import { type ModelFunction } from '../levenbergMarquardt';

/** What somebody said of a parameter of a formula: where the search starts, whether it stays there, between which values it lies. */
export interface ParameterSetting {
  /** Null where the start is to be found. */
  start: number | null;
  held: boolean;
  low: number | null;
  high: number | null;
  /** UCUM code of the unit in which these are given; where there is none, that of the parameter in each run. */
  toldIn?: string;
}

export const usualSetting: ParameterSetting = { start: null, held: false, low: null, high: null };

/** A name in the formula that is found by the fit. */
export interface TypedParameter extends Omit<ParameterSetting, 'toldIn'> {
  name: string;
  /** Null where the formula does not tell it: its number holds for SI units. */
  unit: Unit | null;
}

export interface TypedModel {
  text: string;
  program: Program;
  /** What the axis is called in it. */
  xName: string;
  xUnit: Unit;
  yUnit: Unit;
  parameters: readonly TypedParameter[];
  /** Names with a value of their own. */
  constants: readonly { name: string; value: number; unit: Unit }[];
}

/** A formula worked out over places and parameters, in the units in which these are shown. */
export class TypedFunction {
  readonly free: TypedParameter[];
  private readonly out: Measured;
  /** Which leaf each free parameter is. */
  private readonly leafOfFree: number[];
  private readonly sources: ((free: readonly number[]) => Input)[];
  private readonly xLeaf: number;

  readonly xUnit: Unit;
  readonly yUnit: Unit;

  constructor(readonly model: TypedModel) {
    this.xUnit = model.xUnit;
    this.yUnit = model.yUnit;
    const { program, parameters, constants, xName, xUnit, yUnit } = model;
    this.free = parameters.filter(({ held, start }) => !held || start === null);
    this.out = measured(yUnit);
    const x = measured(xUnit);
    const leafNames = program.leaves.map(({ formula }) =>
      formula.kind === 'name' ? sameName(formula.name) : '',
    );
    this.xLeaf = leafNames.indexOf(sameName(xName));
    this.leafOfFree = this.free.map(({ name }) => leafNames.indexOf(sameName(name)));
    this.sources = leafNames.map((name, leaf) => {
      const place = this.leafOfFree.indexOf(leaf);
      const parameter = parameters.find((one) => sameName(one.name) === name);
      const constant = constants.find((one) => sameName(one.name) === name);
      const unit = constant?.unit ?? parameter?.unit ?? [];
      const { factor, zero } = leaf === this.xLeaf ? x : measured(unit);
      const fixed = constant?.value ?? parameter?.start ?? NaN;
      return (free) => ({ values: place < 0 ? fixed : free[place], factor, zero });
    });
  }

  private inputs(free: readonly number[], x: Float64Array): Input[] {
    return this.sources.map((source, leaf) =>
      leaf === this.xLeaf ? { ...source(free), values: x } : source(free),
    );
  }

  values(free: readonly number[], x: Float64Array, first = 0, count = x.length): Float64Array {
    const { factor, zero } = this.out;
    const found = this.model.program.values(this.inputs(free, x), first, count);
    for (let i = 0; i < count; i++) found[i] = found[i] / factor - zero;
    return found;
  }

  /** Partial derivatives by one free parameter. */
  partials(
    free: readonly number[],
    place: number,
    x: Float64Array,
    first = 0,
    count = x.length,
  ): Float64Array {
    return this.scaled(
      this.model.program.partials(this.inputs(free, x), this.leafOfFree[place], first, count),
    );
  }

  /** Partial derivatives by a constant. */
  byConstant(free: readonly number[], name: string, x: Float64Array): Float64Array {
    const leaf = this.model.program.leaves.findIndex(
      ({ formula }) => formula.kind === 'name' && sameName(formula.name) === sameName(name),
    );
    return this.scaled(this.model.program.partials(this.inputs(free, x), leaf, 0, x.length));
  }

  /** Derivative of the value by the place. */
  slope(free: readonly number[], at: number): number {
    if (this.xLeaf < 0) return 0;
    const x = Float64Array.of(at);
    return this.scaled(this.model.program.partials(this.inputs(free, x), this.xLeaf, 0, 1))[0];
  }

  private scaled(values: Float64Array): Float64Array {
    const { factor } = this.out;
    for (let i = 0; i < values.length; i++) values[i] /= factor;
    return values;
  }

  /** As the solver sees it, over the free parameters that are not at a bound. */
  asModel(
    x: Float64Array,
    whole: (some: readonly number[]) => number[],
    places: readonly number[],
  ): ModelFunction {
    return (some, first, out, jacobian) => {
      const free = whole(some);
      out.set(this.values(free, x, first, out.length));
      if (jacobian === null) return;
      places.forEach((place, k) => jacobian[k].set(this.partials(free, place, x, first, out.length)));
    };
  }
}
