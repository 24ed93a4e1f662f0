export { startHeuristor, type Heuristor } from './heuristor';
export { type Database, openDatabase } from './database';
export { issueLinkToken } from './auth/signIn';
export { createInvestigation, writeWorkings, hasInvestigations } from './services/investigations';
export { addRun } from './services/runs';
export { writeSamples } from './services/samples';
