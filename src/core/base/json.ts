/** What a `jsonb` column or a journal entry may hold. */
export type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json | undefined };
export type JsonObject = { readonly [key: string]: Json | undefined };

/** The text a JSON value is; anything else is no text. */
export const textIn = (value: Json | undefined): string => (typeof value === 'string' ? value : '');
