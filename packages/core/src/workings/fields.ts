import { type EventKind } from '../calculus/events';
import { type ParameterSetting } from '../fitting/models/typedFunction';
import { type ResultRef, type SeriesRef } from './references';

/** A formula as it was typed, and what its names meant when it was: a reference outlasts a renaming. */
export interface FormulaText {
  text: string;
  names: Readonly<Record<string, SeriesRef | ResultRef>>;
}

/** A moment that each run has for itself: something that happens in a series, and how long after it. */
export interface Anchor {
  event: EventKind;
  of: SeriesRef;
  /** Where a level is crossed: that level, in the unit that the entry tells numbers of this series in. */
  level: number;
  /** Which one of its kind, from 1 on. */
  count: number;
  /** In the unit of the abscissa. */
  offset: number;
}

/** A stretch that holds for one run alone. */
export interface OwnStretch {
  run: string;
  start: number;
  end: number;
}

/**
 * What an entry has to be told, declared once by its kind: the stored schema, the editor, the evaluator's memory and the
 * copying of entries follow from it.
 */
export type Field = FieldShape & {
  /** True of a field that an entry need not have: what was stored before there was such a field means the usual. */
  later?: boolean;
};

type FieldShape =
  | {
      type: 'series';
      label: string;
      /** Whether the abscissa may be chosen too. */
      axis: boolean;
      /** Where the abscissa stands for no series at all: what that is called. */
      none?: string;
    }
  | { type: 'region'; label: string }
  | { type: 'choice'; label: string; options: readonly { key: string; title: string }[] }
  | {
      type: 'integer';
      label: string;
      low: number;
      high: number;
      odd: boolean;
      usual: number;
      slider: number | null;
    }
  | {
      type: 'number';
      label: string;
      usual: number;
      low: number | null;
      /** The field that names the series in whose unit it is told. */
      inUnitOf?: string;
      /** Whether it tells how wide something is, and not where it lies: that differs where a scale has its zero elsewhere. */
      isWidth?: true;
      /** It is slid over so many intervals between readings. */
      slidesOver?: number;
    }
  | { type: 'flag'; label: string; usual: boolean }
  | { type: 'text'; label: string; most: number; pattern: RegExp | null; usual: string }
  | { type: 'result'; label: string }
  | { type: 'formula'; label: string; usual: FormulaText }
  | { type: 'parameters'; label: string; usual: Readonly<Record<string, ParameterSetting>> }
  | { type: 'anchor'; label: string; usual: Anchor | null }
  | { type: 'regions'; label: string; usual: readonly string[] }
  | { type: 'ownStretches'; label: string; usual: readonly OwnStretch[]; inUnitOf: string };

export type Fields = Readonly<Record<string, Field>>;

/** The stored value of a field. A region is the id of a region entry, or null for the whole run. */
export type FieldValue<F extends Field> = F extends { type: 'series' }
  ? SeriesRef
  : F extends { type: 'region' }
    ? string | null
    : F extends { type: 'choice'; options: readonly { key: infer K }[] }
      ? K
      : F extends { type: 'integer' | 'number' }
        ? number
        : F extends { type: 'flag' }
          ? boolean
          : F extends { type: 'result' }
            ? ResultRef
            : F extends { type: 'formula' }
              ? FormulaText
              : F extends { type: 'parameters' }
                ? Readonly<Record<string, ParameterSetting>>
                : F extends { type: 'anchor' }
                  ? Anchor | null
                  : F extends { type: 'regions' }
                    ? readonly string[]
                    : F extends { type: 'ownStretches' }
                      ? readonly OwnStretch[]
                      : string;

/** Every field with its value, as a kind is told them. */
export type FieldValues<F extends Fields> = { [K in keyof F]: FieldValue<F[K]> };

type LaterKey<F extends Fields> = { [K in keyof F]: F[K] extends { later: true } ? K : never }[keyof F];

/** Fields as an entry holds them: later ones may be missing. */
export type StoredValues<F extends Fields> = FieldValues<Omit<F, LaterKey<F>>> & {
  [K in LaterKey<F>]?: FieldValue<F[K]>;
};

/** Declares a field that a kind got later: where an entry has none, it means the usual. */
export const later = <const F extends Field>(field: F) => ({ ...field, later: true }) as const;

/** What a field holds where nothing was said; undefined where it has to be said. */
export function usualOf(field: Field): unknown {
  switch (field.type) {
    case 'choice':
      return field.options[0]?.key;
    case 'region':
      return null;
    case 'series':
      return field.axis ? 't' : undefined;
    case 'result':
      return undefined;
    default:
      return field.usual;
  }
}

export const seriesField = (label = 'Of') => ({ type: 'series', label, axis: false }) as const;
export const axisField = (label = 'Against') => ({ type: 'series', label, axis: true }) as const;
export const anySeriesField = (label: string, none: string) =>
  ({ type: 'series', label, axis: true, none }) as const;
export const regionField = (label = 'Region') => ({ type: 'region', label }) as const;
export const choiceField = <const K extends string>(
  label: string,
  options: readonly { key: K; title: string }[],
) => ({ type: 'choice', label, options }) as const;
export const integerField = (
  label: string,
  bounds: { low: number; high: number; odd: boolean; usual: number; slider: number | null },
) => ({ type: 'integer', label, ...bounds }) as const;
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
export const flagField = (label: string, usual = false) => ({ type: 'flag', label, usual }) as const;
export const resultField = (label: string) => ({ type: 'result', label }) as const;
export const formulaField = (label: string) =>
  ({ type: 'formula', label, usual: { text: '', names: {} } }) as const;
export const parametersField = (label: string) => ({ type: 'parameters', label, usual: {} }) as const;
export const textField = (label: string, most: number, usual = '', pattern: RegExp | null = null) =>
  ({ type: 'text', label, most, usual, pattern }) as const;
/** Further regions, none of them at first. */
export const regionsField = (label: string) => ({ type: 'regions', label, usual: [] }) as const;
export const anchorField = (label: string) => ({ type: 'anchor', label, usual: null }) as const;
/** Stretches of single runs, in the unit of the series that a field names. */
export const ownStretchesField = (label: string, inUnitOf: string) =>
  ({ type: 'ownStretches', label, usual: [], inUnitOf }) as const;
