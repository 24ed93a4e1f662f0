import { customAlphabet } from 'nanoid';

/** A name for something new on the sheet; made on pages of plain HTTP too, where a browser makes no UUIDs. */
export const newId = customAlphabet('0123456789abcdefghijklmnopqrstuvwxyz', 12);
