import { z } from 'zod';
import { type FieldSchema } from './fieldSchema';

export const integer: FieldSchema<'integer'> = ({ low, high, odd, label, usual }) => {
  const whole = z.number().int().min(low).max(high);
  const right = odd ? whole.refine((n) => n % 2 === 1, `${label} must be odd`) : whole;
  return right.default(usual);
};
