import { parseUnit } from '../units/unit';
import { type NamedResult } from './outcome';
import { type Condition } from './run';

/**
 * What was typed of a run, as a result that formulas can use. Runs of which the same was typed share its uncertainty: it is one
 * mass that was weighed once.
 * @returns null where nothing was typed
 */
export function conditionResult({ name, value, uncertainty, unit, roots }: Condition): NamedResult | null {
  if (value === null) return null;
  const isUncertain = uncertainty !== null && uncertainty > 0;
  return {
    key: 'value',
    name,
    quantity: {
      value,
      unit: parseUnit(unit),
      standardUncertainty: isUncertain ? uncertainty : null,
      degreesOfFreedom: Infinity,
      influences: () =>
        (roots ?? (isUncertain ? [ownRoot(name, value, uncertainty)] : [])).map(({ root, label, by }) => ({
          root,
          label,
          effect: { first: 0, weights: Float64Array.of(by) },
        })),
    },
    roundTo: null,
    main: true,
  };
}

const ownRoot = (name: string, value: number, uncertainty: number) => ({
  root: `condition/${name}/${value}/${uncertainty}`,
  label: name,
  by: uncertainty,
});
