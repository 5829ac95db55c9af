import { describedIn } from '../adapters/examples';
import { workspaceSeedSchema, type WorkspaceSeed } from '../workspace/seed';

export const readSeed = (file: string): WorkspaceSeed => workspaceSeedSchema.parse(describedIn(file));
