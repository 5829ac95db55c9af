import '@fontsource-variable/source-sans-3/wght.css';
import '../ui/kit/base.css';
import '../ui/kit/frame.css';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Kit } from '../ui/kit/Kit';

export const metadata: Metadata = {
  title: { default: 'Millrace', template: '%s · Millrace' },
  description: 'Research, score and follow up leads, every value with its source.',
};

/** Every page is made for its request: its scripts and styles carry the nonce of that answer. */
export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <AppRouterCacheProvider options={{ enableCssLayer: true, nonce }}>
          <Kit nonce={nonce}>{children}</Kit>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
