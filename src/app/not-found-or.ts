import 'server-only';
import { notFound } from 'next/navigation';
import { Refusal } from '../server/platform/world';

/** What a page asked for, or Next's "not found" page when it does not exist or its address is not one of ours. */
export async function orNotFound<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    const malformed = error instanceof Error && 'code' in error && error.code === '22P02';
    if (malformed || (error instanceof Refusal && (error.kind === 'not found' || error.kind === 'not valid'))) notFound();
    throw error;
  }
}
