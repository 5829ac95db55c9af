import '@fontsource-variable/source-sans-3/wght.css';
import '../ui/kit/base.css';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { Kit } from '../ui/kit/Kit';

export const metadata: Metadata = {
  title: { default: 'Millrace', template: '%s · Millrace' },
  description: 'Research, score and follow up leads, every value with its source.',
};

export default function RootLayout({ children }: { readonly children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <AppRouterCacheProvider options={{ enableCssLayer: true }}>
          <Kit>{children}</Kit>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
