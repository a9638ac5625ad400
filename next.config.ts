import type { NextConfig } from 'next';

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
export default config;
