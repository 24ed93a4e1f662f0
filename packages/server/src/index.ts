export { startHeuristor, type Heuristor } from './heuristor';
export { connect } from './connection';
export { type Database, openDatabase } from './database';
export { issueLinkToken, onlyTeacher } from './auth/signIn';
export {
  changeInvestigation,
  createInvestigation,
  markAsExample,
  hasInvestigations,
  readInvestigation,
} from './services/investigations';
export { findDocument, writeDocument } from './services/documents';
export { addRun, changeRun } from './services/runs';
export { addRows } from './services/spots';
export { writeSamples } from './services/samples';
export { keepTemplate } from './services/templates';
