/** A name for something new on the sheet. */
export const newId = (): string => crypto.randomUUID().slice(0, 12);
