import { buildWeb } from './build';
import { runScript } from './plain';

runScript(async () => buildWeb());
