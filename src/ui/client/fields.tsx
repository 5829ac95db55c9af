'use client';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { catalogueOf, STANDARD, type Catalogue, type OwnField } from '../../core/fields';

const Fields = createContext<Catalogue>(STANDARD);

/** Gives everything below it the workspace's fields as they were when the page was made. */
export function FieldsProvider({ own, children }: { readonly own: readonly OwnField[]; readonly children: ReactNode }) {
  return <Fields value={useMemo(() => catalogueOf(own), [own])}>{children}</Fields>;
}

/** The workspace's fields. */
export const useFields = (): Catalogue => useContext(Fields);
