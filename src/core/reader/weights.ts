import type { Model } from './model';
import file from './weights.json';

/** What `npm run train` has learnt from the keyed sites. */
export const MODEL: Model = file;
