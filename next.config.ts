import type { NextConfig } from 'next';

/** Headers of pages are set by our own server (`src/server/http/entry.ts`), which knows the nonce of each answer. */
const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: [
    'postgres',
    'pino',
    'prom-client',
    '@node-rs/argon2',
    'undici',
    'cheerio',
    'nodemailer',
    'mailparser',
    'mailauth',
    'smtp-server',
    'pdfkit',
    'pdfjs-dist',
    'tesseract.js',
  ],
};
export default config;
