import { stopDatabase } from '../../scripts/lib.mjs';
import { TEST_HOME } from './database-up.mjs';

export default function down() {
  stopDatabase(TEST_HOME);
}
