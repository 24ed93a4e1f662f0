import { defineFieldType } from './fieldType';
import { seriesNamedBy } from './seriesNamedBy';

export interface NumberShape {
  type: 'number';
  label: string;
  usual: number;
  low: number | null;
  /** The field that names the series in whose unit it is given. */
  inUnitOf?: string;
  /** Whether it tells how wide something is, and not where it lies: that differs where a scale has its zero elsewhere. */
  isWidth?: true;
  /** It is slid over so many intervals between readings. */
  slidesOver?: number;
}

export const numberField = (label: string, usual = 0, low: number | null = null) =>
  ({ type: 'number', label, usual, low }) as const;
/** A length along the abscissa that is slid over so many intervals between readings. */
export const lengthField = (label: string, usual: number, slidesOver: number) =>
  ({ type: 'number', label, usual, low: 0, slidesOver }) as const;
/** A number in the unit of a series that the entry names, by the field that names it. */
export const levelField = (label: string, inUnitOf = 'of', usual = 0) =>
  ({ type: 'number', label, usual, low: null, inUnitOf }) as const;
/** How wide something is, in the unit of the series that the entry is of. */
export const widthField = (label: string) =>
  ({ type: 'number', label, usual: 0, low: 0, inUnitOf: 'of', isWidth: true }) as const;

export const number = defineFieldType<NumberShape, number>({
  usual: ({ usual }) => usual,
  unitSeries: (_value, { inUnitOf }, values) => seriesNamedBy(inUnitOf, values),
  inUnits: (value, { isWidth = false }, { read }) => read(value, isWidth),
});
