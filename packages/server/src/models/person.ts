import { Model } from 'objection';

/** A school: it owns teachers, devices, and what is set of them. */
export class SchoolModel extends Model {
  static override tableName = 'school';

  declare id: string;
  declare name: string;
  declare madeAt: Date;
}

/** Somebody who acts: a teacher of a school, or one who takes part in, or only shows, a single investigation. */
export class PersonModel extends Model {
  static override tableName = 'person';

  declare id: string;
  declare schoolId: string;
  declare kind: 'teacher' | 'participant' | 'screen';
  declare name: string;
  declare investigationId: string | null;
  declare madeAt: Date;
  declare removedAt: Date | null;
}
