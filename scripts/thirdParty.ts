import { readFileSync, writeFileSync } from 'node:fs';
import { format } from 'prettier';
import { runScript, say } from './plain';
import { thirdPartyList } from './thirdPartyList';

runScript(async () => {
  const file = 'docs/third-party.md';
  const list = thirdPartyList(JSON.parse(readFileSync('package-lock.json', 'utf8')));
  writeFileSync(file, await format(list, { parser: 'markdown', proseWrap: 'preserve' }));
  say(`${file} is written.`);
});
