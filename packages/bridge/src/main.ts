import { namedPorts } from './ports';
import { SerialBridge } from './serialBridge';

const url = process.env.HEURISTOR_LINK;
if (url === undefined) throw new Error('HEURISTOR_LINK is not set; start the bridge with “npm run demo”.');
const bridge = new SerialBridge(url, namedPorts(process.env.HEURISTOR_SERIAL ?? ''));

const end = () => {
  bridge.close();
  setTimeout(() => process.exit(0), 100).unref();
};
process.on('SIGTERM', end);
process.on('SIGINT', end);
// The start script may be gone without a word.
process.on('disconnect', end);
