'use client';
import { CssBaseline, ThemeProvider } from '@mui/material';
import { useEffect, type ReactNode } from 'react';
import { theme } from './theme';

export const THEME_KEY = 'millrace theme';

/** Puts the kit's looks around the application; the theme the person chose is taken up before they see much. */
export function Kit({ children }: { readonly children: ReactNode }) {
  useEffect(() => {
    document.documentElement.dataset.theme = localStorage.getItem(THEME_KEY) ?? 'light';
  }, []);
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      {children}
    </ThemeProvider>
  );
}
