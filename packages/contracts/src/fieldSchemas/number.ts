import { finite } from '../basics';
import { type FieldSchema } from './fieldSchema';

export const number: FieldSchema<'number'> = ({ low, usual }) =>
  (low === null ? finite : finite.min(low)).default(usual);
