import { type FieldSchema, seriesRefSchema } from './fieldSchema';

export const series: FieldSchema<'series'> = ({ axis }) =>
  axis
    ? seriesRefSchema
    : seriesRefSchema.refine((reference) => reference !== 't', 'the abscissa cannot stand here');
