/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { startTransition, useEffect } from 'react';
import { placed } from '../../kit/placed';

/** What the server writes on an error that comes from the database being away. */
export const DATABASE_DIGEST = 'database-away';
const AGAIN_MS = 4_000;

/** A page that could not be made. While it is the database that is away, the page comes back by itself. */
export function PageBroke({ error, reset }: { readonly error: Error & { readonly digest?: string }; readonly reset: () => void }) {
  const router = useRouter();
  const isAway = error.digest === DATABASE_DIGEST;
  const again = (): void => {
    startTransition(() => {
      router.refresh();
      reset();
    });
  };
  useEffect(() => {
    const timer = setInterval(
      () => {
        startTransition(() => {
          router.refresh();
          reset();
        });
      },
      isAway ? AGAIN_MS : AGAIN_MS * 4,
    );
    return () => {
      clearInterval(timer);
    };
  }, [isAway, router, reset]);
  return (
    <main className="empty" css={placed({ margin: '12vh auto' })} role="alert">
      <h1>{isAway ? 'The database cannot be reached' : 'This page could not be shown'}</h1>
      {isAway ? (
        <p>
          Nothing was changed and nothing is lost. This page comes back by itself as soon as the database does; started with npm start, it
          is started again within seconds. If it stays away, look whether PostgreSQL runs and has room on its disk.
        </p>
      ) : (
        <p>Millrace could not read what it needs. Nothing was changed and nothing was lost; flows go on in the worker.</p>
      )}
      <Button variant="contained" onClick={again}>
        Try again now
      </Button>
    </main>
  );
}
