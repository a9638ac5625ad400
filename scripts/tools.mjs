// What the scripts share: running a command, and seeing that what it needs is installed.
import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';

export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', ...options });
  if (error) throw new Error(`${command} could not be started: ${error.message}`);
  return status ?? 1;
}

export function must(command, args, options) {
  const status = run(command, args, options);
  if (status !== 0) {
    console.error(`\n${command} ${args.join(' ')} ended with ${status}.`);
    process.exit(status);
  }
}

/** Installs the pinned packages where they are missing or older than the lock file. */
export function ensurePackages() {
  const mark = 'node_modules/.package-lock.json';
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync('package-lock.json').mtimeMs) return;
  console.log('Installing packages (npm ci)…');
  must('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Debian's Chromium and ChromeDriver, where they are not there yet. */
export function ensureBrowser() {
  if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return;
  console.log('Installing Chromium and ChromeDriver from Debian’s packages…');
  const asRoot = (args) =>
    process.getuid?.() === 0
      ? must(args[0], args.slice(1), { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } })
      : must('sudo', args);
  asRoot(['apt-get', 'update', '-qq']);
  asRoot(['apt-get', 'install', '-y', '-qq', 'chromium', 'chromium-driver']);
}

export const build = () =>
  must('npm', ['run', '-s', 'build'], { env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' } });
