import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';

/** A key for a device that is let in: it keeps it and proves by it that it is the same. */
export const newKey = () => randomBytes(24).toString('base64url');

export const hashOfKey = (key: string) => createHash('sha256').update(key).digest('hex');

export const isKey = (key: string, hash: string) =>
  timingSafeEqual(Buffer.from(hashOfKey(key)), Buffer.from(hash));
