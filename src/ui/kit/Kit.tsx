'use client';
import { CssBaseline, ThemeProvider } from '@mui/material';
import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import { theme } from './theme';

export const THEME_KEY = 'millrace theme';

const NonceContext = createContext('');
/** The nonce of this page's answer, for what writes style sheets of its own. */
export const useNonce = (): string => useContext(NonceContext);

/** Puts the kit's looks around the application; the theme the person chose is taken up before they see much. */
export function Kit({ nonce: given, children }: { readonly nonce: string; readonly children: ReactNode }) {
  // A page that is brought up to date is given the nonce of a newer answer; the policy in force is the first one's.
  const [nonce] = useState(given);
  useEffect(() => {
    document.documentElement.dataset.theme = localStorage.getItem(THEME_KEY) ?? 'light';
  }, []);
  return (
    <NonceContext value={nonce}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        {children}
      </ThemeProvider>
    </NonceContext>
  );
}
