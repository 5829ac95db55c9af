import type { NextConfig } from 'next';

/** Inline styles are what MUI writes at run time; scripts come only from ourselves (Next's own inline start script needs its hash-less allowance). */
const policy = (frames: string): string =>
  `default-src 'self'; script-src 'self' 'unsafe-inline'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; connect-src 'self'; frame-ancestors ${frames}; base-uri 'self'; form-action 'self'`;

const ALWAYS = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Referrer-Policy', value: 'same-origin' },
];

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: [
    'postgres',
    'pino',
    '@node-rs/argon2',
    'undici',
    'cheerio',
    'nodemailer',
    'mailparser',
    'smtp-server',
    'pdfkit',
    'mammoth',
    'pdfjs-dist',
  ],
  headers: () =>
    Promise.resolve([
      { source: '/:path*', headers: ALWAYS },
      {
        // Forms may stand in pages of other sites; nothing else may.
        source: '/((?!f/).*)',
        headers: [
          { key: 'Content-Security-Policy', value: policy("'none'") },
          { key: 'X-Frame-Options', value: 'DENY' },
        ],
      },
      { source: '/f/:path*', headers: [{ key: 'Content-Security-Policy', value: policy('*') }] },
    ]),
};
export default config;
