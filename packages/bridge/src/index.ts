export { SerialBridge } from './serialBridge';
export { namedPorts } from './ports';
