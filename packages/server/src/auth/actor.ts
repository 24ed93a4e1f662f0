import { type PersonModel } from '../models/person';

interface Somebody {
  id: string;
  name: string;
  school: string;
}

/** Who asks for something. What one may do is decided by this and nothing else, see `services/access.ts`. */
export type Actor =
  | (Somebody & { kind: 'teacher' })
  /** Works along in one investigation, over its runs, with a sheet of its own. */
  | (Somebody & { kind: 'participant'; investigation: string })
  /** Only shows one investigation, as its owner sees it. */
  | (Somebody & { kind: 'screen'; investigation: string });

export type Teacher = Extract<Actor, { kind: 'teacher' }>;

/** The actor that a person is; null for one that was removed, or belongs nowhere. */
export function actorOf({ id, name, kind, schoolId, investigationId, removedAt }: PersonModel): Actor | null {
  if (removedAt !== null) return null;
  const somebody = { id, name, school: schoolId };
  if (kind === 'teacher') return { ...somebody, kind };
  return investigationId === null ? null : { ...somebody, kind, investigation: investigationId };
}
