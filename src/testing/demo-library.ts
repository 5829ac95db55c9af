/** The demo's named things and its flow, for tests of what is written with them. */
import fs from 'node:fs';
import { libraryParts, librarySchema, type Library } from '../core/flow/check';

interface Workspace {
  readonly library: readonly { readonly kind: string; readonly body: unknown }[];
  readonly teams: readonly { readonly name: string }[];
  readonly users: readonly { readonly name: string }[];
  readonly webhooks: readonly { readonly name: string }[];
  readonly mailboxes: readonly { readonly name: string }[];
}
const workspace = JSON.parse(fs.readFileSync('demo/workspace.json', 'utf8')) as Workspace;
export const DEMO_LIBRARY: Library = librarySchema.parse({
  ...libraryParts(workspace.library),
  teams: workspace.teams.map((team) => team.name),
  connections: workspace.mailboxes.map((box) => box.name),
  people: workspace.users.map((user) => user.name),
  webhooks: workspace.webhooks.map((hook) => hook.name),
});
export const DEMO_FLOW = fs.readFileSync('demo/flows/trade-fair-visitors.race', 'utf8');
