import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { PlainFault, runScript, say } from '../plain';
import { pictureDifference } from './differences';

const usage =
  'Name the folders: npm run pictures:compare BEFORE [BEFORE-AGAIN] AFTER. “npm run screenshots FOLDER” fills one.';

/** Compares the pictures of the documents before and after a change, pixel by pixel; exits with 1 where any differs. */
runScript(async () => {
  const folders = process.argv.slice(2);
  const after = folders.pop();
  if (after === undefined || folders.length === 0) throw new PlainFault(usage);
  for (const folder of [...folders, after])
    if (!existsSync(folder)) throw new PlainFault(`There is no folder “${folder}”. ${usage}`);
  const pictures = (folder: string) => readdirSync(folder).filter((name) => name.endsWith('.png'));
  const names = [...new Set([...folders, after].flatMap(pictures))].sort();
  let differing = 0;
  for (const name of names) {
    const lacking = [...folders, after].find((folder) => !existsSync(join(folder, name)));
    if (lacking !== undefined) {
      differing++;
      say(`${name}: not in ${lacking}`);
      continue;
    }
    const { cells, box } = pictureDifference(
      folders.map((folder) => readFileSync(join(folder, name))),
      readFileSync(join(after, name)),
    );
    if (box === null) continue;
    differing++;
    say(`${name}: differs in ${cells.length} cells, within ${box.join(', ')}`);
  }
  say(`\n${names.length} pictures compared, ${differing} differ`);
  process.exit(differing === 0 ? 0 : 1);
});
