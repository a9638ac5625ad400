// npm test: installs what is missing, builds, runs every test, and ends with one line of counts.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { build, ensureBrowser, ensurePackages, run } from './tools.mjs';

ensurePackages();
ensureBrowser();
build();

let passed = 0;
let failed = 0;
for (const [name, args] of [
  // Side by side: the browser's tests wait for pages half of their time.
  ['core, application and browser', ['--selectProjects', 'core', 'app', 'e2e', '--maxWorkers=2']],
  // Alone: it is asked how soon it answers.
  ['server', ['--selectProjects', 'server', '--runInBand']],
]) {
  console.log(`\n== ${name} tests`);
  const file = `node_modules/.cache/jest-${name.split(/\W/)[0]}.json`;
  mkdirSync('node_modules/.cache', { recursive: true });
  rmSync(file, { force: true });
  const status = run('npx', ['jest', ...args, '--json', `--outputFile=${file}`], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (!existsSync(file)) {
    console.error(`Jest ended with ${status} before it could say how the ${name} tests went.`);
    failed++;
    continue;
  }
  const result = JSON.parse(readFileSync(file, 'utf8'));
  passed += result.numPassedTests;
  // A suite that cannot even be loaded counts as a failure of its own.
  failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
  if (status !== 0 && result.numFailedTests + result.numRuntimeErrorTestSuites === 0) failed++;
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
