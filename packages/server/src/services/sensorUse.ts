import { type Setup, usualSetup } from '@heuristor/contracts';
import { InvestigationModel } from '../models/investigation';
import { SensorUseModel } from '../models/sensorUse';
import { type Transaction } from 'objection';

/** Which investigation uses a device, and how; null where none does. */
export async function storedUse(
  schoolId: string,
  code: string,
): Promise<{ investigation: string; name: string; setup: Setup } | null> {
  const use = await SensorUseModel.query().where({ schoolId, code, active: true }).first();
  if (use === undefined) return null;
  const investigation = await InvestigationModel.query().findById(use.investigationId).whereNull('deletedAt');
  if (investigation === undefined) return null;
  return { investigation: investigation.id, name: investigation.name, setup: use.setup };
}

/** Gives a device to an investigation, set up as it had it last; whoever had it before keeps the memory of its set-up. */
export async function takeSensor(schoolId: string, investigationId: string, code: string): Promise<Setup> {
  return SensorUseModel.transaction(async (transaction) => {
    await SensorUseModel.query(transaction).where({ schoolId, code, active: true }).patch({ active: false });
    const known = await SensorUseModel.query(transaction).findById([investigationId, code]);
    const setup = known?.setup ?? usualSetup;
    await SensorUseModel.query(transaction)
      .insert({ schoolId, investigationId, code, active: true, setup })
      .onConflict(['investigationId', 'code'])
      .merge();
    return setup;
  });
}

export async function freeSensor(schoolId: string, code: string): Promise<void> {
  await SensorUseModel.query().where({ schoolId, code, active: true }).patch({ active: false });
}

export async function freeSensorsOf(investigationId: string): Promise<void> {
  await SensorUseModel.query().where({ investigationId, active: true }).patch({ active: false });
}

export async function keepSetup(investigationId: string, code: string, setup: Setup): Promise<void> {
  await SensorUseModel.query().findById([investigationId, code]).patch({ setup });
}

/** Codes of devices that an investigation uses or has used. */
export async function sensorsOf(investigationId: string): Promise<string[]> {
  const uses = await SensorUseModel.query().where({ investigationId }).orderBy('code');
  return uses.map(({ code }) => code);
}

/** A copy of an investigation remembers the set-ups of its sensors, and has none of them. */
export async function copySetups(from: string, to: string, transaction: Transaction): Promise<void> {
  const uses = await SensorUseModel.query(transaction).where({ investigationId: from });
  for (const { schoolId, code, setup } of uses)
    await SensorUseModel.query(transaction).insert({
      schoolId,
      investigationId: to,
      code,
      setup,
      active: false,
    });
}
