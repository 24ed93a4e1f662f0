import { type KeptDocument, type KeptKind, keptVersionSchema, storedKeptSchema } from '@heuristor/contracts';
import { ApiError, request, sentenceOf } from '../../api/client';
import { type Sent } from '../saver';

/** What the server says of a document that it does not take, and will not take the next time either. */
const refusing: ReadonlySet<string> = new Set([
  'invalid-request',
  'too-large',
  'unsupported',
  'not-found',
  'not-allowed',
]);

/** Sends a document that was made from a version. @param path where it is stored */
export async function sendDocument<K extends KeptKind>(
  path: string,
  kind: K,
  version: number,
  document: KeptDocument<K>,
): Promise<Sent<KeptDocument<K>>> {
  try {
    const answer = await request('PUT', path, { version, [kind]: document });
    return { kind: 'stored', version: keptVersionSchema.parse(answer).version };
  } catch (error) {
    if (error instanceof ApiError && error.code === 'stale-document') {
      const theirs = storedKeptSchema(kind).parse(error.current);
      return { kind: 'stale', theirs: theirs.document, theirVersion: theirs.version };
    }
    const isFinal = error instanceof ApiError && refusing.has(error.code);
    return { kind: isFinal ? 'refused' : 'failed', sentence: sentenceOf(error) };
  }
}

/** Sends what is not stored yet as the page goes away; nobody hears the answer. */
export function sendLast<K extends KeptKind>(
  path: string,
  kind: K,
  unsaved: { version: number; document: KeptDocument<K> } | null,
): void {
  if (unsaved === null) return;
  const { version, document } = unsaved;
  void fetch(`/api${path}`, {
    method: 'PUT',
    keepalive: true,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ version, [kind]: document }),
  });
}
