import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { NextConfig } from 'next';
import { PHASE_DEVELOPMENT_SERVER, PHASE_PRODUCTION_BUILD } from 'next/constants';

/** Changes with the code that solves and draws: what a browser keeps of it is made anew then (`store/glances.ts`). */
function engineMark(): string {
  const hash = createHash('sha256');
  const files = readdirSync('src/core', { recursive: true, encoding: 'utf8' });
  for (const file of files.filter((f) => /\.ts$/.test(f) && !/\.test\.ts$/.test(f)).sort())
    hash.update(file).update(readFileSync(join('src/core', file)));
  return hash.digest('hex').slice(0, 12);
}

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  // It starts threads of its own, from files.
  serverExternalPackages: ['piscina'],
  // The page needs nothing from elsewhere and is not to be framed.
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'X-Frame-Options', value: 'DENY' },
        { key: 'Referrer-Policy', value: 'no-referrer' },
      ],
    },
    {
      // Workers have the policy of the file they are: like pages, they run what this server sent, and nothing else.
      source: '/_next/static/:path*',
      headers: [
        {
          key: 'Content-Security-Policy',
          value:
            "default-src 'self'; script-src 'self'; connect-src 'self' data: blob:; worker-src 'self' blob:; " +
            "object-src 'none'; base-uri 'none'",
        },
      ],
    },
  ],
};
const BUILT_IN = [PHASE_PRODUCTION_BUILD, PHASE_DEVELOPMENT_SERVER];
export default function configIn(phase: string): NextConfig {
  return BUILT_IN.includes(phase) ? { ...config, env: { RHABDOPLEX_ENGINE: engineMark() } } : config;
}
