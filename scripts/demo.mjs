// npm run demo: installs, builds and serves the application with the demo set in place.
import { build, ensurePackages, must } from './tools.mjs';

ensurePackages();
build();
const port = process.env.PORT ?? '3000';
// For this machine only, unless asked otherwise: HOST=0.0.0.0 npm run demo.
const host = process.env.HOST ?? '127.0.0.1';
console.log(
  `\nRhabdoplex with the Quillmoor Observatory's cards: http://${host === '127.0.0.1' ? 'localhost' : host}:${port}\n`,
);
must('npx', ['next', 'start', '-p', port, '-H', host], {
  env: { ...process.env, RHABDOPLEX_DEMO: '1', NEXT_TELEMETRY_DISABLED: '1' },
});
