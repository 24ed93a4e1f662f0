const { resolve } = require('node:path');
const { make, isApi, isUnit } = require('./jest.bundle.cjs');

const ofProject = {
  unit: isUnit,
  api: isApi,
  browser: (path) => /^e2e\/[^/]*$/.test(path),
  others: (path) => path.startsWith('e2e/others/'),
};

/** The projects that were chosen: Jest calls a set-up that many share once, with the first of them. */
function chosenProjects() {
  const at = process.argv.indexOf('--selectProjects');
  if (at === -1) return Object.keys(ofProject);
  const named = process.argv.slice(at + 1);
  const end = named.findIndex((word) => word.startsWith('-'));
  return named.slice(0, end === -1 ? undefined : end).filter((name) => name in ofProject);
}

/** Makes the scripts of the tests that are about to run, where that was not done for several runs at once. */
module.exports = ({ nonFlagArgs, runTestsByPath }) => {
  if (process.env.HEURISTOR_TEST_SCRIPTS !== undefined) return undefined;
  const named = new Set(nonFlagArgs.map((path) => resolve(path)));
  const chosen = chosenProjects();
  return make((path) =>
    runTestsByPath
      ? named.has(path)
      : chosen.some((project) => ofProject[project](path.slice(__dirname.length + 1))),
  );
};
