'use client';
import { Button } from '@mui/material';

export default function PageBroke({ reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <div className="empty">
      <h1>This page could not be shown</h1>
      <p>Millrace could not read what it needs. Nothing was changed and nothing was lost; flows go on in the worker.</p>
      <Button variant="contained" onClick={reset}>
        Try again
      </Button>
    </div>
  );
}
