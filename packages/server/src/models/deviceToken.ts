import { Model } from 'objection';

/** What lets a device in that brings its readings over HTTP. */
export class DeviceTokenModel extends Model {
  static override tableName = 'device_token';

  declare id: number;
  declare schoolId: string;
  declare code: string;
  declare name: string;
  declare tokenHash: string;
  declare madeAt: Date;
  declare usedAt: Date | null;
}
