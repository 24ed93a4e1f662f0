import { z } from 'zod';
import { type FieldSchema } from './fieldSchema';

export const text: FieldSchema<'text'> = ({ most, pattern, usual }) => {
  const some = z.string().max(most);
  return (pattern === null ? some : some.regex(pattern)).default(usual);
};
