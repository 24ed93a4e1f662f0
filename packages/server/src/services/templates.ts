import {
  type NewTemplate,
  type Template,
  conditionColumnSchema,
  emptyGuide,
  emptyTrials,
  knownChannelSchema,
  readKept,
  readWorkings,
  trialsWithoutRuns,
  withoutRuns,
} from '@heuristor/contracts';
import { z } from 'zod';
import { Failure } from '../failure';
import { TemplateModel } from '../models/template';
import { type Teacher } from '../auth/actor';

const channelsSchema = z.array(knownChannelSchema);
const conditionsSchema = z.array(conditionColumnSchema);

/** Every template of the teacher, in the order in which they were kept; one that cannot be read does not hide the others. */
export async function listTemplates(owner: Teacher): Promise<Template[]> {
  const rows = await TemplateModel.query()
    .where({ ownerId: owner.id })
    .whereNull('deletedAt')
    .orderBy([{ column: 'madeAt' }, { column: 'id' }]);
  return rows.flatMap(({ id, name, about, channels, conditions, document, trials, guide }) => {
    try {
      return [
        {
          id,
          name,
          about,
          channels: channelsSchema.parse(channels),
          conditions: conditionsSchema.parse(conditions),
          workings: readWorkings(document),
          trials: trials === null ? emptyTrials : readKept('trials', trials),
          guide: guide === null ? emptyGuide : readKept('guide', guide),
        },
      ];
    } catch {
      return [];
    }
  });
}

export async function keepTemplate(
  owner: Teacher,
  { name, about, channels, conditions, workings, trials, guide }: NewTemplate,
): Promise<string> {
  const { id } = await TemplateModel.query().insertAndFetch({
    ownerId: owner.id,
    name,
    about,
    channels,
    conditions,
    document: withoutRuns(workings),
    trials: trialsWithoutRuns(trials),
    guide,
  });
  return id;
}

/** Removes a template, or puts it back. @throws Failure where there is none */
export async function removeTemplate(owner: Teacher, id: string, isRemoved: boolean): Promise<void> {
  const changed = await TemplateModel.query()
    .where({ id, ownerId: owner.id })
    .patch({ deletedAt: isRemoved ? new Date() : null });
  if (changed === 0) throw new Failure('not-found', 'There is no such template.');
}
