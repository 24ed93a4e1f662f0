import { type WorkingsDocument, storedWorkingsSchema, workingsVersionSchema } from '@heuristor/contracts';
import { ApiError, request, sentenceOf } from '../api/client';
import { type Sent } from './saver';

/** What the server says of a sheet that it does not take, and will not take the next time either. */
const refusing: ReadonlySet<string> = new Set(['invalid-request', 'too-large', 'unsupported', 'not-found']);

/** Sends a sheet that was made from a version. @param path of its investigation */
export async function sendSheet(
  path: string,
  version: number,
  workings: WorkingsDocument,
): Promise<Sent<WorkingsDocument>> {
  try {
    const answer = await request('PUT', `${path}/workings`, { version, workings });
    return { kind: 'stored', version: workingsVersionSchema.parse(answer).version };
  } catch (error) {
    if (error instanceof ApiError && error.code === 'stale-document') {
      const theirs = storedWorkingsSchema.parse(error.current);
      return { kind: 'stale', theirs: theirs.workings, theirVersion: theirs.version };
    }
    const isFinal = error instanceof ApiError && refusing.has(error.code);
    return { kind: isFinal ? 'refused' : 'failed', sentence: sentenceOf(error) };
  }
}

/** Sends what is not stored yet as the page goes away; nobody hears the answer. */
export function sendLast(
  path: string,
  unsaved: { version: number; document: WorkingsDocument } | null,
): void {
  if (unsaved === null) return;
  const { version, document } = unsaved;
  void fetch(`/api${path}/workings`, {
    method: 'PUT',
    keepalive: true,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ version, workings: document }),
  });
}
