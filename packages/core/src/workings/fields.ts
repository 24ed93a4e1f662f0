import { type ParameterSetting } from '../fitting/models/typed';
import { type ResultRef, type SeriesRef } from './references';

/** A formula as it was typed, and what its names meant when it was: a reference outlasts a renaming. */
export interface FormulaText {
  text: string;
  names: Readonly<Record<string, SeriesRef | ResultRef>>;
}

/**
 * What an entry has to be told, declared once by its kind: the stored schema, the editor, the evaluator's memory and the
 * copying of entries follow from it.
 */
export type Field =
  | {
      type: 'series';
      label: string;
      /** Whether the abscissa may be chosen too. */
      axis: boolean;
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
  | { type: 'number'; label: string; usual: number; low: number | null }
  | { type: 'flag'; label: string; usual: boolean }
  | { type: 'text'; label: string; most: number; pattern: RegExp | null; usual: string }
  | { type: 'result'; label: string }
  | { type: 'formula'; label: string; usual: FormulaText }
  | { type: 'parameters'; label: string; usual: Readonly<Record<string, ParameterSetting>> };

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
                : string;

export type FieldValues<F extends Fields> = { [K in keyof F]: FieldValue<F[K]> };

export const seriesField = (label = 'Of') => ({ type: 'series', label, axis: false }) as const;
export const axisField = (label = 'Against') => ({ type: 'series', label, axis: true }) as const;
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
export const flagField = (label: string, usual = false) => ({ type: 'flag', label, usual }) as const;
export const resultField = (label: string) => ({ type: 'result', label }) as const;
export const formulaField = (label: string) =>
  ({ type: 'formula', label, usual: { text: '', names: {} } }) as const;
export const parametersField = (label: string) => ({ type: 'parameters', label, usual: {} }) as const;
export const textField = (label: string, most: number, usual = '', pattern: RegExp | null = null) =>
  ({ type: 'text', label, most, usual, pattern }) as const;
