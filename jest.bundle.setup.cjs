const { resolve } = require('node:path');
const { make, isApi, isUnit } = require('./jest.bundle.cjs');

/** Makes the scripts of the tests that are about to run. */
module.exports = ({ nonFlagArgs, runTestsByPath }, { displayName }) => {
  const named = new Set(nonFlagArgs.map((path) => resolve(path)));
  const ofProject = { unit: isUnit, api: isApi };
  const isOfProject = ofProject[displayName?.name] ?? ((path) => path.startsWith('e2e/'));
  return make((path) => (runTestsByPath ? named.has(path) : isOfProject(path.slice(__dirname.length + 1))));
};
