import { type ParameterSetting } from '../../fitting/models/typedFunction';
import { defineFieldType } from './fieldType';

type Parameters = Readonly<Record<string, ParameterSetting>>;

export interface ParametersShape {
  type: 'parameters';
  label: string;
  usual: Parameters;
}

export const parametersField = (label: string) => ({ type: 'parameters', label, usual: {} }) as const;

/** What was said of the parameters of a typed relation. */
export const parameters = defineFieldType<ParametersShape, Parameters>({
  usual: ({ usual }) => usual,
  uses: (value) => ({ parameters: value }),
});
