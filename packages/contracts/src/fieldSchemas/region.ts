import { type FieldSchema, entryId } from './fieldSchema';

export const region: FieldSchema<'region'> = () => entryId.nullable();
