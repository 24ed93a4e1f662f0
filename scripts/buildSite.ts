import { buildAll } from './build';
import { runScript } from './plain';

runScript(buildAll);
