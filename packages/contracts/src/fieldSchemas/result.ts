import { type FieldSchema, resultRefSchema } from './fieldSchema';

export const result: FieldSchema<'result'> = () => resultRefSchema;
