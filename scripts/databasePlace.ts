import { existsSync } from 'node:fs';
import { dirname, isAbsolute, join, relative } from 'node:path';
import { z } from 'zod';
import { readKept, writeKept } from './keptFile';
import { PlainFault, say } from './plain';

/** What lies beside a database that is outside its data folder: to whom it belongs. */
const ownerSchema = z.object({ id: z.string(), data: z.string() });
const idSchema = z.object({ id: z.string() });

const ownerFile = (folder: string) => join(dirname(folder), 'heuristor.json');
const isInside = (data: string, folder: string) => !relative(data, folder).startsWith('..');

/** How the place of a database is written down: what lies in the data folder moves with it. */
export const keptPlace = (data: string, folder: string): string =>
  isInside(data, folder) ? relative(data, folder) : folder;

/**
 * Where the database of a data folder lies: where the folder itself says, never where its path alone would put it. A folder that was
 * moved or renamed finds its database, and one whose database is missing does not begin an empty one in its place.
 * @param hasKept whether the folder has had a database, readable or not
 * @param usual where a new one is made
 * @throws PlainFault where the database is missing, or belongs to another folder
 */
export function placeOfDatabase(
  data: string,
  kept: { folder?: string | undefined; id?: string | undefined } | null,
  hasKept: boolean,
  usual: string,
): string {
  const folder =
    kept?.folder === undefined ? usual : isAbsolute(kept.folder) ? kept.folder : join(data, kept.folder);
  if (hasKept && !existsSync(folder))
    throw new PlainFault(
      `The data folder ${data} has a database, but it is not where it was: ${folder} is missing. Put it back there and start again; nothing was changed. (If nothing of it is wanted any more, remove ${join(data, 'cluster.json')} too, and an empty one is begun.)`,
    );
  const owner = readKept(ownerFile(folder), ownerSchema);
  if (!isInside(data, folder) && owner !== null && owner.data !== data && owner.id === kept?.id) {
    if (readKept(join(owner.data, 'cluster.json'), idSchema)?.id === owner.id)
      throw new PlainFault(
        `${data} is a copy of ${owner.data} without its database, which lies in ${folder} and belongs to that one. A copy of that folder alone holds no runs. Start the other one, or copy ${dirname(folder)} as well and name it as “folder” in ${join(data, 'cluster.json')}.`,
      );
    say(`The data folder was moved from ${owner.data}; its database in ${folder} goes with it.`);
  }
  return folder;
}

/** Writes down beside a database that lies outside whose it is. */
export function ownDatabase(data: string, folder: string, id: string | undefined): void {
  if (isInside(data, folder) || id === undefined) return;
  const owner = readKept(ownerFile(folder), ownerSchema);
  if (owner?.data !== data || owner.id !== id) writeKept(ownerFile(folder), { id, data });
}
