import { type ResultRef } from '../references';
import { defineFieldType } from './fieldType';

export interface ResultShape {
  type: 'result';
  label: string;
}

export const resultField = (label: string) => ({ type: 'result', label }) as const;

export const result = defineFieldType<ResultShape, ResultRef>({
  usual: () => undefined,
  ofNew: (_field, { nextResult }) => nextResult(),
  uses: (value) => ({ results: [value] }),
  withReferences: (value, map) => map.result(value),
});
