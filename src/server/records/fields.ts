import { catalogueOf, type Catalogue } from '../../core/fields';
import type { Tx } from '../db';
import { listFields } from './store/fields';

/** The workspace's fields as they are now. */
export async function loadCatalogue(tx: Tx): Promise<Catalogue> {
  return catalogueOf(await listFields(tx));
}
