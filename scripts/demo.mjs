// npm run demo: installs, builds and serves the application with the demo set in place.
import { build, ensurePackages, must } from './tools.mjs';

ensurePackages();
build();
const port = process.env.PORT ?? '3000';
console.log(`\nRhabdoplex with the Quillmoor Observatory's cards: http://localhost:${port}\n`);
must('npx', ['next', 'start', '-p', port], {
  env: { ...process.env, RHABDOPLEX_DEMO: '1', NEXT_TELEMETRY_DISABLED: '1' },
});
