export { startHeuristor, type Heuristor } from './heuristor';
export { openDatabase } from './database';
export { issueLinkToken } from './auth/signIn';
export { createInvestigation, writeWorkings, hasInvestigations } from './services/investigations';
export { addRun } from './services/runs';
export { writeSamples } from './services/samples';
export { importColumns } from './services/imports';
