import { packCore } from './packCore';
import { runScript, say } from './plain';

/** Packs the core, and says where. */
runScript(async () => {
  say(`${await packCore('.data/core-package')} can be installed with npm.`);
  process.exit(0);
});
